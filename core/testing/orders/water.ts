import type { Order } from './order'

/** The order of work on backflow assemblies and other valves of the water side. */
export const waterOrders: readonly Order[] = [
  [
    'tower-double-check',
    'usual',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /Customer told/, // 1
      /Close shutoff 2/, // 2
      /Close shutoff 1/,
      /cocks 4, 3, then 2.*Cock 1 stays shut/,
      /washers kept with the cover/, // 3
      /Lift the cover/,
      /check 1 on both sides.*flush with the inside wall.*Not out of the body/s, // 4
      /Lift check 1/,
      /Photograph check 1/, // 5
      /Hold tower and seat together.*springs push/s,
      /Part tower 1/,
      /disc of check 1/, // 6
      /seat of check 1/, // 8
      /Tower 1 by hand/, // 9
      /Tower 1 back.*arms and bosses up.*opens downward/s, // 10
      /Tower screws of check 1.*No power tool/s,
      /which way it opens/,
      /check 2 on both sides.*flush/s, // 11
      /Lift check 2.*flat blade/s,
      /Tower 2 back.*arms and bosses down.*opens upward/s,
      /Set check 2 in.*square.*arms and bosses down/s, // 12
      /check 2 on both sides.*without binding/s,
      /Set check 1 in.*arms and bosses up/s, // 13
      /second look.*photograph/, // 14
      /Cover on, mark to mark/, // 15
      /washers under every bolt/,
      /one thread.*hand tight.*two middle ones.*rest/i,
      /Crack shutoff 1/,
      /cocks 2, 3, then 4/,
      /Open shutoff 1 fully/,
      /local rule/,
      /Open shutoff 2/,
    ],
  ],
  [
    'double-check-detector',
    'two-checks',
    // Sheet, 5: 3, 4 make safe; 5 to 12 strip; 13 to 16 rebuild; 18, 19 bypass; 20 connector; 21 to 24 return.
    [
      /how many cocks it has/,
      /photograph/i,
      /Fire contact, alarm company/,
      /some water always escapes/,
      /bypass shutoff 2/i,
      /fed from the main/,
      /Bleed the bypass/,
      /Undo the bypass connector/,
      /all but the two beside the retainer pin/,
      /straight up/,
      /[Bb]earing socket/,
      /O-ring 1 out with the fingers/,
      /Pivot bearing 1 off/,
      /Pull one clip, hold the other, draw the load pin/,
      /Spring module 1 out/,
      /Rag round arm 1 now/,
      /Jam nut and washer of disc 1 off/,
      /both hands/,
      /Seat ring 1, bare/,
      /Lock nuts of seat ring 1 off/,
      /Rubber of disc 1/,
      /Flush the dirt.*check 1/,
      /Seat ring 1 square in/,
      /evenly firm, not hard/,
      /lowered over its stud/,
      /jam nut of disc 1 tight/,
      /still wobbles/,
      /Rag off arm 1/,
      /Spring module 1 in/,
      /both clips on/,
      /Pivot bearing 1 on/,
      /O-ring 1 in its groove/,
      /Pin into its hole, bearing into its socket/,
      /two beside the pin first/,
      // One check is finished before the other is opened.
      /tag 2/,
      /still wobbles/,
      /Rag off arm 2/,
      /Cap of bypass check 1 off/,
      /square on its shoulder/,
      /connector on.*a fraction only/,
      /Cocks 2, 3 and 4 shut first/,
      /to half/,
      /Cock 2, then 3, then 4/,
      /before the outlet is opened/,
      /Open shutoff 2 slowly/,
      /alarm and impairment closed/,
    ],
    {},
    ['seat-1'],
  ],
  [
    'cartridge-check',
    'rp',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /Serial and the date of installation/, // 1
      /Close shutoff 2/, // 2
      /cocks 4, 3, then 2/,
      /relief dumps.*zone dry at cock 3/,
      /Cover off by hand.*No blade/, // 3
      /ears of clip ring 1 together by touch.*holds the back ring/s, // 4
      /Back ring 1 out/,
      /Cartridge 1 out at an angle, by its handle.*captured/s, // 5
      /Nuts of cartridge 1 off/, // 6
      /Handle of cartridge 1 off/,
      /single washer of cartridge 1 off/,
      /Cap of cartridge 1 off/,
      /Hard seat in cartridge 1, by itself/, // 7
      /Soft face of cartridge 1, by itself/,
      /Bag it, tag it, log it/, // 8
      /Flush pocket 1/, // 9
      /New soft face 1, flat/, // 10
      /Cap of cartridge 1 on/,
      /single washer of cartridge 1 on/,
      /Handle back/,
      /Nuts of cartridge 1, evenly/,
      /Press the cap of cartridge 1/,
      /lubricated all round/, // 11
      /Cartridge 1 in at an angle.*fully home/, // 12
      /Back ring 1 in, and held/, // 13
      /Clip ring 1 over it by touch.*to and fro.*debris/s,
      /Grip cartridge 1 and pull/, // 14
      /Cover bolts by hand/, // 15
      /Crack shutoff 1/, // 16
      /local rule/, // 17
    ],
    { 'face-1': 'renew' },
  ],
  [
    'cartridge-check',
    'dc',
    [/Old cartridge 2.*Bag it whole/, /New cartridge 2 in at an angle/, /Grip cartridge 2/],
    {},
    ['exchange-2'],
  ],
  [
    'rp-relief',
    'usual',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /relief port/, // 1
      /air gap/,
      /cause found before anything is shut/, // 3
      /Customer and, for a fire line/, // 4
      /Close shutoff 2/, // 5
      /Close shutoff 1/,
      /cocks 4, 3, then 2.*Cock 1 stays shut/, // 6
      /Prove zero at cocks 2, 3 and 4/, // 7
      /Lock and tag/, // 8
      /Zero under the cover/,
      /Witness mark/, // 9
      /a turn each, in a cross.*spring pushes against the cover.*two long ones/s, // 10
      /take it off, a hand on it/,
      /Centre screw of the diaphragm out/, // 11
      /Diaphragm off/,
      /Lower diaphragm plate off/,
      /Spring out/,
      /Stem out/,
      /Disc screw out/,
      /edge by fingertip/, // 12
      /[Ss]ensing passage.*both ways/, // 13
      /New seat disc, flat/, // 15
      /film on the stem O-ring and in its guide/, // 16
      /slides by its own weight/,
      /Spring in its seats/, // 17
      /Diaphragm on, dry.*bead in the groove all round/is, // 18
      /Centre screw snug.*not twisted/,
      /Cover on, by its mark/, // 19
      /rosswise, nothing pinched/,
      /Push the relief open by hand/, // 20
      /relief discharges until/, // 21
      /local rule/, // 22
      /Open shutoff 2/,
      /opening and the buffer.*dry at rest/, // 22, 23
    ],
    { 'seat-disc': 'renew' },
  ],
  [
    'vacuum-breaker',
    'svb',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /Canopy off.*frost/s, // 1
      /sprinkler controller is off/, // 4
      /Close shutoff 2/, // 5
      /Close shutoff 1/,
      /Open the vent screw, then cock 1/, // 6
      /poppet lies open/, // 7
      /Lock and tag/, // 8
      /test as found show/, // 3
      /Mark bonnet to body/, // 10
      /Bonnet off, the palm over it/,
      /Diaphragm lifted at its bead/, // 12
      /which end was up/, // 11
      /Stem O-ring off/, // 12
      /Vent screw out/,
      /Retainer of the check held down/, // 13
      /Check spring out/,
      /Poppet of the check out/,
      /Seat of the check by finger/, // 14
      /push the check with a finger/, // 16
      /film on the stem O-ring/, // 17
      /Poppet in/, // 18
      /bead in the groove all round/,
      /Bonnet on/,
      /Lift the poppet and let it go/, // 19
      /Both cocks shut/, // 20
      /slowly while it fills, then briskly/,
      /Check first, then air inlet/, // 21
      /Open shutoff 2 slowly/, // 22
      /Canopy on, now that the test has passed/, // 23
    ],
    { shows: 'check' },
  ],
  [
    'vacuum-breaker',
    'pvb',
    [
      /Open cock 2, then cock 1/,
      /Bonnet O-ring out/,
      /New poppet seal.*proud/s,
      /Lift the poppet/,
      /Air inlet, opens fully, then check/,
      /Canopy on/,
    ],
    { 'poppet-seal': 'renew' },
  ],
  [
    'high-pressure-water-valve',
    'normally-closed',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /Read the holes before anything is touched.*Never feel/s, // 1
      /pump off and locked/, // 4
      /Dump open/,
      /cycle the valve by air/,
      /Control air vented/, // 5
      /Gland nut.*collar/, // 6
      /nozzle hose and air hose off and marked/,
      /vise by its flats/, // 7
      /Cover off/,
      /Bench air to the actuator/, // 8
      /broken loose only/, // 9
      /Air off, vented/, // 10
      /Actuator loosened/, // 11
      /is the seat with it/, // 12
      /Actuator off by hand/, // 13
      /drawn with the pliers/, // 14
      /it is in the actuator/,
      /Grooved ring drawn out.*kept/, // 15
      /Stepped ring drawn out/,
      /pushes it down and out/, // 16
      /Seal pushed out/, // 17
      /Old stem away now/, // 18
      /seal looked at and felt/, // 19
      /Positioning tool in from the bottom/, // 20
      /bottoms on the positioning tool.*Wedge ring up/s, // 21
      /New O-ring on the stem/, // 22
      /groove away from the O-ring/,
      /step to the wedge ring/,
      /through the seal, straight/, // 23
      /compound on the thread of the actuator/, // 24
      /first tension.*back off.*firm/s,
      /positioning tool out, both counted/, // 25
      /New seat up/, // 26
      /face of the nut/, // 27
      /bench air on/, // 28
      /to torque, with the air on/, // 29
      /Air off/, // 30
      /Cover on/,
      /Air on and off on the bench/, // 31
      /cone and collar right/, // 32
      /pump on low/, // 33
      /three holes watched/, // 34
    ],
  ],
  [
    'proportional-injector',
    'usual',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /listen for the click/, // 1
      /dosing scale.*ratio/, // 2
      /suck back/,
      /Clean water through the suction/, // 3
      /Water inlet shut/, // 4
      /Zero, and nothing moves/,
      /Hose nut off.*stays on the hose/, // 5
      /off the barb/,
      /stem nut off/, // 6
      /straight down.*notches/s,
      /Check-valve nut off/, // 7
      /pulled straight by its barb/,
      /Lock nut off/, // 8
      /slid down over the threads/,
      /Adjusting nut off/,
      /pressed upward/, // 9
      /O-ring of the stem, in its place/,
      /O-ring of the sleeve, in its place/,
      /pinched and rolled off/, // 10
      /All rinsed/, // 11
      /New O-ring of the sleeve/, // 12
      /groove to the tooth/, // 13
      /Adjusting nut on/, // 14
      /turned until it clicks/, // 15
      /recorded mark, before the lock nut/, // 16
      /Lock nut by hand/,
      /New check valve in/, // 17
      /rolled into its groove/, // 18
      /teeth to the notches.*scale to the reader/is, // 19
      /Nut over the hose first/, // 20
      /Water on slowly/, // 21
      /Click count/, // 22
      /Tell setting/, // 23
    ],
  ],
  [
    'spring-cover-check',
    'usual',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /Read the port/, // 1
      /Is it a check that the figures point to/, // 3
      /Which check do the figures point to/,
      /Close shutoff 2/, // 5
      /Close shutoff 1/,
      /cocks 4, 3, then 2/, // 6
      /stand clear, the floor drain free/,
      /across cover 1/, // 14
      /a turn each, in a cross.*heavier spring/s,
      /Cover 1 off/,
      /Spring 1 out, a label 1/,
      /Disc holder 1 straight up/,
      /Bush 1: in its bore/,
      /Disc 1 where it lies/,
      /Stem 1 held, its nut off/,
      /Washer 1 off/,
      /Disc 1 out of its recess/,
      /eye first, then one fingertip/,
      /spring is the lighter one/,
      /Cover 2 off/,
      /Spring 2 out, a label 2/,
      /Disc 1 back, flat in its recess/,
      /nut 1 snug/,
      /Press holder 1 up/,
      /label 1, the heavier one/,
      /O-ring of cover 1/,
      /one thread, by hand, then crosswise/,
      /Disc 2 back/,
      /Press holder 2 up/,
      /label 2, the lighter one/,
      /Relief dry at rest/,
    ],
    {},
    ['check-1', 'check-2'],
  ],
]
