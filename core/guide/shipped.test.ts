import { describe, expect, it } from 'vitest'
import { shippedGuides, shippedSubGuides } from '../testing/guides'
import { expandGuide, type Guide, guideRun, type PlacedStep } from '.'

const guide = (id: string) => shippedGuides.find((g) => g.id === id) as Guide
/** Everything a step tells its reader, in one line. */
const told = (s: PlacedStep): string =>
  [s.say, s.differs, s.hazard, s.orient, s.never, s.why, s.tip, s.together, s.position]
    .concat(
      s.inTurn ?? [],
      (s.turns ?? []).map((t) => `${t.way}: ${t.effect}`),
    )
    .concat(s.where ?? [], s.amount ?? [], s.compound ?? [], s.verify ?? [], s.lastOnes ?? [])
    .concat(s.until ?? [], s.steps?.map(told) ?? [])
    .filter(Boolean)
    .join(' | ')
/** The steps of a variant with the given findings; everything else is found sound. */
function way(
  id: string,
  variant: string,
  findings: Readonly<Record<string, string>> = {},
  jobs: readonly string[] = [],
) {
  const g = guide(id)
  const record = expandGuide(g, shippedSubGuides).steps.flatMap((s) => {
    const first = (s.verdicts ?? s.answers)?.[0]?.id
    return first ? [{ step: s.id, finding: findings[s.inspect ?? s.ask ?? ''] ?? first }] : []
  })
  return guideRun(g, shippedSubGuides, variant, record, jobs).steps
}

/** What each family’s job must say, in this order: the orderings, orientations and traps of the trade. */
const ORDERS: readonly (readonly [
  string,
  string,
  readonly RegExp[],
  Record<string, string>?,
  string[]?,
])[] = [
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
      /tag 2/,
      /Cap of bypass check 1 off/,
      /Flush the dirt/,
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
      /Soft face of cartridge 1, by itself/, // 7
      /Bag it, tag it, log it/, // 8
      /Hard seat in cartridge 1, by itself/, // 7
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
    'air-blow-check',
    'usual',
    [
      /press down and push/,
      /at the top/,
      /out at the bottom/,
      /clip drops inside/,
      /no scratches/,
      /springs and clips/,
      /centres itself/,
      /seats evenly/,
    ],
  ],
  [
    'sleeve-regulator-actuator',
    'spring-to-open',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /Which way does it fail/, // 1
      /Route chosen/, // 2
      /explode/, // 3
      /Close the outlet valve/,
      /Close the inlet valve/,
      /pilot supply shut/,
      /control line shut/,
      /outlet side and the control line, then pilot and loading chamber.*then the inlet/,
      /looked at again/,
      /Centre protective cap off, now, before all else/, // 4
      /washers kept in their order/,
      /upper and lower casing/, // 5
      /lower casing and intermediate flange/,
      /intermediate flange and body/,
      /Control line off/, // 6
      /Loading and supply lines off/,
      /indicator off/,
      /Its O-ring out/,
      /Short bolts out first/, // 14
      /two long stud bolts evenly/,
      /lifted off level.*brackets/,
      /Spring out/, // 15
      /Indicator stem off/,
      /Clamp screws out/,
      /Inlet plate off/,
      /Diaphragm off/,
      /Outer O-ring off/,
      /both split rings out of its bore/, // 16
      /Nuts of the lower casing off/, // 17
      /straight up.*Never set it down on its disc/,
      /disc up/, // 18
      /Disc screws and their lock washers out/,
      /Disc out of its holder/,
      /Disc holder off/,
      /O-ring of the adapter out/,
      /on its side/, // 19
      /slid out on the side of the diaphragm, the outlet plate with it/,
      /Outlet plate off the sleeve/,
      /first and second split ring out/,
      /Flange cap screws out/, // 20
      /Now the intermediate flange lifts/,
      /every spare laid beside its place/, // 21
      /Upper casing: one split ring, the other, then the O-ring slid between.*Gaps half a turn apart/, // 22
      /Lower casing alike.*Gaps half a turn apart/,
      /diaphragm side up/, // 23
      /Outlet plate on the sleeve/,
      /Sleeve slid into the casing/,
      /Turned over again/,
      /Disc holder on the adapter/,
      /lock washer on every screw/,
      /Disc screws crosswise/,
      /Film on the new O-ring of the flange and on the flange/, // 24
      /Stud holes outward/,
      /before the screws/,
      /Flange cap screws crosswise/,
      /onto the body, straight down/, // 25
      /before the nuts/,
      /Nuts of the lower casing crosswise/,
      /inner and outer edge/, // 26
      /every O-ring sits/,
      /round and round in a star.*metal to metal/,
      /Indicator stem in/, // 27
      /Spring lightly/,
      /Casing on, level/,
      /before the bolts/,
      /Two long bolts.*Until the casings meet/s,
      /Short bolts crosswise, the long ones to the same torque/,
      /Washers in their order, nut/, // 28
      /protective cap, last/,
      /fitting tight/,
      /to their own ends, new ferrules/, // 29
      /Control line to its own end/,
      /Tray empty/,
      /stays cracked as a way for the flow/,
      /Crack the inlet/, // 30
      /Control line open, before the pilot supply/,
      /Pilot supply on slowly/,
      /Soap every joint/,
      /Crack the bleed and set/, // 31
      /tested by their own guides/, // 32
    ],
    {},
    ['flange'],
  ],
  [
    'sleeve-regulator-disc',
    'usual',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /full kit lies in the van/,
      /Route: lock-up creeps/, // 2
      /pilot supply shut/, // 3
      /sensing-line holes noted/, // 5
      /Loading and supply lines off/, // 6
      /indicator off/,
      /Eye bolts fully home in the cap/, // 7
      /stay part-threaded/,
      /Lift the cap/,
      /O-ring off/,
      /Special screws out, into a box of their own/, // 8
      /Eye bolt in the spring seat/,
      /straight up out of the guide/,
      /Eye bolt out of the spring seat/,
      /Turn the trim over/, // 9
      /lock washers out/,
      /Retainer off/,
      /Disc out/,
      /O-ring in the sleeve adapter out/,
      /fingernail/,
      /with a lamp/,
      /New disc in its holder/, // 10
      /New O-ring in the sleeve adapter/,
      /Holes in line/,
      /Disc screws crosswise/,
      /turned back/, // 11
      /Sleeve wiped/,
      /turned until the holes meet/,
      /Eye bolt out, and the guide screw, before the special screws/,
      /Special screws in/,
      /in its place first, before the cap/, // 12
      /sensing-line holes meet/,
      /Try the indicator in its bore/,
      /before the screws/,
      /Threads of the cap screws lubricated/,
      /hand-tight, then crosswise/,
      /fitting tight/, // 13
      /Control line open, before the pilot supply/, // 30
    ],
  ],
  [
    'dome-regulator',
    'gas',
    // Sheet, 5: 2 make safe; 3 to 6 seats out; 8 to 10 diaphragm; 11, 12 stem; 13 stroke; 14 to 20 seats in.
    [
      /loader and its filter/i,
      /range from low to full/,
      /outlet valve slowly/,
      /shut-off of the loading supply/,
      /inlet valve slowly/,
      /outlet, then the dome, then the inlet/,
      /stamps.*line up/i,
      /Cap straight up/,
      /Disc guide out/,
      /Index pin out/,
      /disc out, its arrow noted/,
      /blunt probe in its pin hole/,
      /Disc pin straight, and in the centre/,
      /Case bolts out evenly/,
      /Hold the disc pin.*counter-clockwise/,
      /pin wrench on the lower plate/,
      /how it was found/,
      /Lock nut of the stem, two wrenches/,
      /Stem out of the pin, and up/,
      /Disc pin out through the orifice/,
      /Disc pin into the orifice/,
      /until it will go no further/,
      /the pin not turned/,
      /drop of thread-lock/,
      /turn of the sheet past tight/,
      /centre of the bore.*clockwise/,
      /edge of the plate/,
      /Lapped face to the cap, pin hole on the stamp side/,
      /through the slot/,
      /Arrow to the pin hole/,
      /Now the index pin/,
      /Press the diaphragm down.*lowers the disc.*raises the disc/,
      /fully open, exactly in line/,
      /edge of the disc guide/,
      /over the index pin/,
      /Stamps of body and cap/,
      /flat in its recess all round/,
      /none left over/,
      /Inlet|inlet valve/,
      /Loading supply open/,
    ],
    {},
    ['stem'],
  ],
  [
    'spring-regulator',
    'gas',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /vent: clear.*ice/, // 1
      /height of the adjuster.*do not turn/, // 2
      /Burners off/, // 5
      /explode/,
      /Close the outlet valve/, // 6
      /Close the inlet valve/,
      /outlet side, then the inlet side, the adjuster as found/, // 7
      /Prove zero at the outlet/,
      /Prove zero at the inlet/,
      /count its turns.*spring throws it/s, // 8
      /Witness mark/, // 9
      /all but two opposite/,
      /Case off/,
      /range label/,
      /Diaphragm off/, // 10
      /Bottom plug out/, // 11
      /edge by fingertip/,
      /bent/, // 12
      /passage blown clear/,
      /moves by its weight/, // 13
      /New disc in its holder, flat/,
      /Holes in line.*not twisted/, // 15
      /Case on, by its mark.*vent/s, // 16
      /little spring load.*crosswise/s,
      /Push the stem lightly/, // 18
      /recorded turns/, // 19
      /flow point/, // 20
      /Crack the inlet valve/,
      /Soap every joint/,
      /Draw the small flow and set/, // 21
      /lock-up and creep.*droop/,
      /Lock nut tight/, // 22
      /Closing cap on, with its seal wire/,
      /light and check each appliance/, // 23
    ],
    { disc: 'renew' },
  ],
  [
    'manifold-regulator',
    'usual',
    [
      /Depressurise the receiver/,
      // The knob is slack before anything is unscrewed, and comes off on the bench.
      /knob fully out/,
      /Manifold off/,
      /Knob unit out as one/,
      /live spring/,
      /pull the knob off/,
      /post pushes the disc out/,
      /Spring on the plug, then the piston/,
      /O-ring at the base of the knob unit, in its groove/,
      /with nothing drawn and at flow/,
    ],
  ],
  [
    'spring-cylinder',
    'to-closed',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /what the signal does.*without air/, // 1
      /25, 50, 75/, // 2
      /Written consent/,
      /Process isolated/, // 3
      /Stem clamp loosened|stem clamp loosened/,
      /how far the stem stands/,
      /Both ports open to air/,
      /Zero on a gauge at both ports/,
      /Tubing off/, // 4
      /lifted off the valve/,
      /Adjusting screw out first, always, in both builds/, // 5
      /how many turns/,
      /driver into the notch.*once round/, // 6
      /on its side/, // 7
      /rocked and drawn at the same time/,
      /out of the yoke through its bushings/, // 8
      /nut off/, // 9
      /Spring button off/,
      /Piston off/,
      /Stem O-ring off/,
      /Spacer off: it stood below/,
      /Old grease out/, // 10
      /Bore by lamp/, // 11
      /down on the shoulder/, // 12
      /counterbore down/,
      /Spacer on the piston/,
      /cannot spin/, // 14
      /does not turn by hand|Try to spin/,
      /New piston O-ring/, // 15
      /O-rings and wiper of the bushing/,
      /New O-ring of the yoke/,
      /upside down/, // 16
      /Bore greased thinly/,
      /lined up with the centre hole/, // 17
      /Spring in first/,
      /piston in at a tilt.*push it back/s,
      /On which side are the air ports/, // 19
      /ring groove is bare all round/,
      /ends a little out of line, plain end first.*Gap opposite/, // 20
      /Turned upright/, // 21
      /down the centre hole/,
      /New gasket.*dry/, // 22
      /thread in the cylinder.*Never on the screw/,
      /until its gasket is pressed and seals/,
      /Bench test with soap/, // 23
      /Fail side on the bench/,
      /Back on its valve/, // 24
      /plug off its seat/,
      /Re-tube or turn the positioner/, // 25
      /it closes.*opens fully/, // 26
      /Change the tag/,
    ],
  ],
  [
    'spring-cylinder-air-action',
    'fails-closed',
    [
      // Sheet, 5: 25, and 6, air action alone.
      /what the signal does.*without air/,
      /Which of the two is wanted/,
      /Written consent/,
      /Both ports open to air/,
      /labelled at both ends/,
      /exchanged or the positioner turned.*Never touch the adjusting screw/,
      /calibrated: zero, span/,
      /take signal, then air away/,
      /Change the tag/,
    ],
  ],
  [
    'spring-cylinder',
    'to-open',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /what the signal does.*without air/, // 1
      /25, 50, 75/, // 2
      /Written consent/,
      /Process isolated/, // 3
      /Stem clamp loosened|stem clamp loosened/,
      /how far the stem stands/,
      /Both ports open to air/,
      /Zero on a gauge at both ports/,
      /Tubing off/, // 4
      /lifted off the valve/,
      /Adjusting screw out first, always, in both builds/, // 5
      /how many turns/,
      /driver into the notch.*once round/, // 6
      /on its side/, // 7
      /rocked and drawn at the same time/,
      /out of the yoke through its bushings/, // 8
      /Spring button: with the spring, or still up/,
      /nut off/, // 9
      /Spacer off: it stood above/,
      /Piston off/,
      /Stem O-ring off/,
      /Old grease out/, // 10
      /Bore by lamp/, // 11
      /Spacer first/, // 13
      /down on the spacer/,
      /counterbore down/,
      /Spring button on the piston.*dish up/,
      /cannot spin/, // 14
      /does not turn by hand|Try to spin/,
      /New piston O-ring/, // 15
      /O-rings and wiper of the bushing/,
      /New O-ring of the yoke/,
      /upside down/, // 16
      /Bore greased thinly/,
      /piston first, square, pushed home/, // 18
      /Spring centred round the stem/,
      /On which side are the air ports/, // 19
      /ring groove is bare all round/,
      /ends a little out of line, plain end first.*Gap opposite/, // 20
      /Turned upright/, // 21
      /New gasket.*dry/, // 22
      /thread in the cylinder.*Never on the screw/,
      /until its gasket is pressed and seals/,
      /Bench test with soap/, // 23
      /Fail side on the bench/,
      /Back on its valve/, // 24
      /plug off its seat/,
      /Re-tube or turn the positioner/, // 25
      /it opens.*closes fully/, // 26
      /Change the tag/,
    ],
  ],
  [
    'threaded-lid-cylinder',
    'usual',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /lid, shaft, breather/, // 1
      /process is ready/, // 3
      /lock it, hose off/, // 4
      /Vent its air port/,
      /Prove the cylinder/,
      /Mark how the cylinder stands/, // 5
      /Off the valve/,
      /pins into the holes/, // 6
      /palm on it.*short and mild/s,
      /Thin outer seal.*top groove/, // 12, 13
      /Thick outer seal.*low groove/,
      /blunt/,
      /Spring to the tray/, // 7
      /straight out/, // 8
      /flats of the shaft held/, // 9
      /pushed off the shaft/,
      /O-ring under the piston off/, // 10
      /Inner seal of the cylinder pushed out/, // 11
      /Bore, thread, port and breather/, // 14
      /New quad ring; no twist/, // 15
      /over the thread with the hooked tool/, // 16
      /flat face to the stop/, // 17
      /Nut tight/, // 18
      /New inner seal of the cylinder/, // 19
      /seen all round its groove/,
      /New inner seal of the lid/, // 20
      /thick outer seal, in the low groove/, // 21
      /thin outer seal, in the high groove/,
      /six new seals/, // 22
      /shaft with piston in, straight/, // 23
      /Spring in/, // 24
      /two turns/, // 25
      /Lid tight against its stop/,
      /bench with a little air/, // 26
      /Back on its valve/, // 27
      /air supply slowly/, // 28
      /both ways/, // 29
    ],
  ],
  ['threaded-lid-cylinder', 'lid', [/three new seals on the lid/, /Lid tight/]],
  [
    'motor-control-valve',
    'usual',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /Oil at the top joint/, // 1
      /goes out of hand/, // 3
      /proved dead, locked/, // 4
      /until they touch nothing/, // 5
      /Drive straight up, not turned/, // 6
      /Hand tool on the neck.*clicks over.*against habit/s, // 8
      /Outlet shut/, // 9
      /Inlet shut/,
      /recovered/, // 10
      /Prove zero, wait/, // 11
      /all but two opposite ones/, // 12
      /Two levers.*no hiss/, // 13
      /lifted straight/, // 14
      /Gasket off by hand.*sharp/is, // 15
      /Seat unscrewed/, // 16
      /scratch-free by fingertip/, // 17
      /Seat and its face.*cleaned, dry/, // 18
      /Service oil on the new O-ring of the seat/,
      /Seat to torque/,
      /New gasket, oiled, laid in flat/, // 19
      /then a little back, off its end stop/, // 20
      /any rotation, pressed to full contact/, // 21
      /rosswise in rising passes/, // 22
      /evacuation/, // 23
      /old grease off neck/, // 24
      /Is the neck dry/,
      /Back-up ring first/, // 25
      /groove below it/, // 26
      /Then the O-ring/,
      /film round and on the magnets/, // 27
      /none touches the neck/, // 28
      /Drive on, any rotation/, // 29
      /to torque, evenly.*never turn the drive/s, // 30
      /Drain shut/, // 31
      /Charge slowly/, // 32
      /Outlet slowly/, // 33
      /Cables on/, // 34
      /Calibrate/, // 35
      /what its tag says/, // 36
    ],
    {},
    ['major'],
  ],
  [
    'double-seat-valve',
    'air-lift',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /Read the drawing now/,
      /Where does it drip/, // 1
      /three strokes seen/, // 2
      /wash finished/, // 3
      /Power off/, // 4
      /Air off and locked/, // 5
      /bore is dry/, // 6
      /Each hose marked/,
      /leaves its seat/, // 7
      /Bolts of the clamps undone/,
      /Air off, its hose off, before a hand/,
      /Insert straight out/,
      /Lower plug out/, // 8
      /Lower element/,
      /Upper plug next/,
      /Upper element last/,
      /O-ring prised out with the rounded driver/, // 9
      /Lip seal prised out/,
      /Axial seal cut across/, // 10
      /Small lip seal out/,
      /Radial seal cut across/, // 11
      /Stem O-ring off/,
      /O-ring prised out/, // 12
      /Lip seal prised out/,
      /laid out by place and counted/, // 13
      /fingernail/,
      /lip seal first/, // 14
      /O-ring second; the rounded driver once all the way round/, // 15
      /Axial seal laid on the upper plug/, // 16
      /clamp ring tight/, // 17
      /air on, hands away/, // 18
      /Hose off, then the tool/,
      /Look all round the axial seal/, // 19
      /trapped air out/, // 20
      /Small lip seal into the upper plug/, // 21
      /turned in all round with the driver/, // 22
      /mouth of the radial tool.*Do not run a finger/, // 23
      /Lower plug in, cover on/, // 24
      /the first shot/, // 25
      /turned by the angle/, // 26
      /the second shot/, // 27
      /Look all round the radial seal/, // 28
      /Stem O-ring on/, // 29
      /O-ring first; the rounded driver once round/, // 30
      /Lip seal second/, // 31
      /static O-rings in the body/, // 32
      /held on its flats/,
      /Insert straight in/,
      /Clamps tight while it is open/,
      /each to its mark/, // 33
      /Dry strokes/,
      /Upper line pressurised alone/, // 34
      /Then the lower line/,
      /Rinse and wash run/, // 35
    ],
    {},
    ['upper', 'lower'],
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
      /bore looked at and felt/, // 19
      /Positioning tool in from the bottom/, // 20
      /bottoms on the positioning tool.*Wedge ring up/s, // 21
      /New O-ring on the stem/, // 22
      /groove away from the O-ring/,
      /step to the wedge ring/,
      /through the seal straight/, // 23
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
    'spool-valve',
    'usual',
    [
      /off the machine/,
      /cap comes too/,
      /engaged by its holes/,
      /one ring fewer than grooves/,
      /vented groove stays empty/,
      /O-ring in its groove.*Slide ring over it.*pops on/,
      /dead square.*cut ring is felt/,
      /Cap and snap ring/,
    ],
  ],
  [
    'cycling-valve',
    'usual',
    [
      /ontinuous exhaust/,
      /Cooling tube nuts/,
      /plump/,
      /bore is vertical/,
      /Rubber side toward the sleeve, steel side toward the casting/,
      /nearest its edge goes up/,
      /low torque.*unit/,
    ],
    { 'spool-rings': 'renew' },
  ],
  [
    'pulse-valve',
    'usual',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /each cone tried against its groove/,
      /cut out on command/, // 1
      /turning gear and start air locked/, // 3
      /Vent the control air/, // 4
      /Drain the fuel/, // 5
      /Prove the control air/, // 6
      /Prove the fuel/,
      /cool enough to touch/, // 7
      /straight off the pump/, // 8
      /vise by its flats/, // 9
      /palm on the plug/, // 10
      /Top plug off/, // 12
      /slight turn.*stiff/s, // 11
      /Air piston out over a cloth/, // 13
      /Spring out/,
      /count them and lay them out/, // 14
      /washed in solvent/, // 15
      /Finest cloth.*washed and blown again/, // 16
      /grooves, edge, tip/, // 17
      /item number by item number/, // 18
      /over the cone of the bottom groove.*slowly/s, // 19, 20
      /Change the cone.*cone of the top groove/s, // 21
      /Rings of the head.*slowest of all/s, // 22
      /Sizing sleeves on/, // 24
      /Look at all three once more/, // 25
      /spring in, seated/, // 28
      /dead straight.*breaks/s, // 29
      /Upper housing pressed/, // 27
      /not pinched/, // 30
      /Anti-seize on the bolts/, // 31
      /crosswise to torque/,
      /Try it in the vise.*Fingers off/s, // 32
      /New O-ring of the foot/, // 33
      /Valve straight on/,
      /air line on/, // 34
      /Fuel back slowly/, // 35
      /Command test/, // 36
    ],
    { 'upper-housing': 'clean' },
  ],
  [
    'shuttle-valve',
    'usual',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /counted by kind, seven kinds/i,
      /drifts up/, // 1
      /bypass is open/, // 3
      /solenoid off, locked/, // 4
      /Shut the outlet of the dryer/, // 5
      /left tower.*silencer/,
      /right tower.*silencer/,
      /vented at the valve, off and marked/, // 6
      /Prove zero at the left tower/,
      /Prove zero at the right tower/,
      /Cold enough/, // 7
      /Limit switch off/, // 8
      /arm to the middle of the slot/, // 10
      /Left flange ring off/, // 9
      /Shuttle with its shaft straight out/, // 10
      /blunt wedge.*not marked/s, // 11
      /all four, before they pass a cap/, // 12
      /Measure and photograph.*longer/,
      /Snap ring out/, // 13
      /Shaft out of the shuttle/,
      /2, 2, 4, 2, 2, 1, 1/, // 14
      /New wipers, outside.*Lip outward/s, // 16
      /Shaft into the shuttle.*not central/s, // 17
      /Snap ring all round/,
      /Throw it both ways/, // 18
      /Four new outer O-rings.*after the caps/, // 19
      /straight into the body.*arm/s, // 20
      /middle of the slot/,
      /Left flange ring over the shaft, turned a little.*outer rings/s, // 22
      /Move the shuttle by its arm/, // 23
      /clicks at both ends/, // 24
      /hold each side and listen/, // 25
      /Towers up slowly/, // 26
      /control line stays down/,
      /full cycle/, // 27
    ],
  ],
  [
    'cartridge-coupler',
    'usual',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /was a latch forced/, // 1
      /Latch by latch/, // 3
      /bonded; no ignition source/, // 4
      /Arm valve shut/,
      /drained into a closed container/,
      /work the poppet, and nothing comes/,
      /supported, the arm tied down/, // 5
      /the arm blanked.*gas-free/,
      /pressed in at once.*collar pushed forward by hand/, // 6
      /Handle swung open/, // 7
      /U-clip lifted.*a hand over it/, // 8
      /out of the near bore.*lifted off the stack/, // 9
      /Tube spacer to the tray/, // 10
      /in its bore, in the cloth or in the spacer/,
      /Wave spring off/,
      /Adapter ring off the poppet/,
      /outer edge.*never touch/is, // 11
      /Handle bolt out/, // 12
      /Old washer off.*cartridge/,
      /four points a quarter apart/, // 14
      /rounded tool round/,
      /outer O-ring, fed round/, // 15
      /washer first/, // 16
      /cartridge over the washer.*shoulder toward the handle/s,
      /no play/, // 17
      /nose down on the bench/, // 18
      /ring over the poppet/,
      /Wave spring over the stem/,
      /far bush pushed home/, // 19
      /lowered over the stack.*scallop/, // 20
      /key toward and into the eccentric cam/, // 21
      /into the far bush, fully home/, // 22
      /squeezed and pressed fully in/, // 23
      /three times.*every latch/, // 24
      /test adapter/, // 25
      /Back on the arm/, // 26
      /Arm valve cracked/,
    ],
  ],
  [
    'nose-seal-coupler',
    'replaceable',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /rubber of the kit agrees/, // 1
      /where does it drip/, // 2
      /refuse uncoupled/, // 3
      /no ignition source/, // 4
      /Arm valve shut/, // 5
      /drained/, // 6
      /nothing runs/, // 7
      /Coupler off, the arm blanked/, // 8
      /nose up/, // 9
      /hands clear: the fingers close/,
      /nose down/, // 10
      /Split pin straightened/, // 11
      /opened with the handle/, // 12
      /spacer off, the first of the row/, // 13
      /Bush off next/,
      /shaft out straight/,
      /Packing out/, // 14
      /Body lifted off poppet/, // 15
      /Seal cylinder out/, // 16
      /Wave springs out/,
      /Nose seal out/, // 17
      /O-ring off/,
      /Felt off/,
      /wiped, blown dry/, // 18
      /hole of the yoke/,
      /New felt.*dry/, // 19
      /New O-ring in its groove/,
      /started at four points.*mark looks outward.*wash out/,
      /no lump|Run a finger/,
      /Body nose up/, // 20
      /Wave springs in first/,
      /on top of the springs/,
      /turned over, nose down/, // 21
      /lowered over the yoke/,
      /before the shaft/, // 22
      /Shaft in through packing and yoke/, // 23
      /picks up the bush/,
      /Then the spacer/,
      /Work it before the pin/, // 24
      /legs bent back/, // 25
      /Work it again/, // 26
      /Bench leak test/, // 27
      /Coupler|coupler on the arm/, // 28
      /Arm valve opened slowly/, // 29
      /test adapter/, // 30
    ],
  ],
  [
    'captive-sampler',
    'usual',
    [
      /Clamps off/,
      /Barrel off/,
      /Head off.*body off/s,
      /each into its own groove/,
      /snaps/,
      /rear of the body/,
      /plain hole is the drain.*point down/,
      /outlet straight down/,
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
]

describe('what the trade knows of each job', () => {
  it.each(
    ORDERS.map(
      ([id, variant, order, findings, jobs]) =>
        [`${id}, ${variant}`, id, variant, order, findings, jobs] as const,
    ),
  )('%s', (_, id, variant, order, findings, jobs) => {
    const lines = way(id, variant, findings, jobs).map(told)
    let from = 0
    for (const words of order) {
      const found = lines.findIndex((l, n) => n >= from && words.test(l))
      const after = lines[from - 1] ?? 'the beginning'
      expect(found, `${String(words)} after “${after}”`).toBeGreaterThanOrEqual(0)
      from = found
    }
  })
  it('a sub-guide’s second turn says loudly, and once, what is different', () => {
    const lines = way('tower-double-check', 'usual', { 'disc-2': 'clean' })
    const said = lines.filter((s) => s.differs?.includes('arms down'))
    expect(said.map((s) => s.say)).toEqual([
      'Seat O-ring of check 2 and its place in the body wiped',
    ])
  })
  it('is there for every family', () => {
    expect(new Set(ORDERS.map(([id]) => id))).toEqual(new Set(shippedGuides.map((g) => g.id)))
  })
})

describe('branches', () => {
  const says = (steps: readonly PlacedStep[]) => steps.map(told).join('\n')
  it('debris on a disc renews nothing; damage renews it', () => {
    const fouled = way('tower-double-check', 'usual', { 'disc-1': 'clean', 'disc-2': 'clean' })
    expect(says(fouled)).toMatch(/rag and water; nothing is renewed/)
    expect(fouled.filter((s) => s.renew).map((s) => s.renew)).toEqual([])
    const damaged = way('tower-double-check', 'usual', { 'disc-1': 'renew', 'disc-2': 'clean' })
    expect(damaged.filter((s) => s.renew).map((s) => s.renew)).toEqual(['disc-1'])
  })
  it('lapped seats are renewed as a set, or all go back', () => {
    const renewed = (disc: string) =>
      way('dome-regulator', 'gas', { disc }).flatMap((s) => (s.renew ? [s.renew] : []))
    expect(renewed('keep')).toEqual([])
    expect(renewed('renew').toSorted()).toEqual(['disc', 'disc-guide', 'plate'])
    const plate = way('dome-regulator', 'gas', { plate: 'renew' }).flatMap((s) => s.renew ?? [])
    expect(plate.toSorted()).toEqual(['disc', 'disc-guide', 'plate'])
  })
  it('a dented seat is not mended by a soft face, and a cartridge exchanged whole is not taken apart', () => {
    const guide = shippedGuides.find((g) => g.id === 'cartridge-check') as Guide
    const { steps } = expandGuide(guide, shippedSubGuides)
    const seat = steps.find((s) => s.inspect === 'seat-1')
    expect(seat?.verdicts?.map((v) => v.id)).toEqual(['keep', 'clean', 'order'])
    const taken = way('cartridge-check', 'dc', {}, ['exchange-2']).flatMap((s) => s.remove ?? [])
    expect(taken).toContain('cap-1')
    expect(taken).not.toContain('cap-2')
  })
  it('a drive alone comes off without a drop of refrigerant being let out', () => {
    const drive = way('motor-control-valve', 'usual')
    expect(drive.filter((s) => s.isolate ?? s.vent ?? s.prove ?? s.reopen)).toEqual([])
    expect(drive.flatMap((s) => s.renew ?? [])).toEqual(['backup-ring', 'drive-ring'])
    const minor = way('motor-control-valve', 'usual', {}, ['minor'])
    expect(minor.flatMap((s) => s.renew ?? [])).toContain('drive-ring')
    expect(minor.flatMap((s) => s.fit ?? [])).toContain('top')
  })
  it('a breaker is opened where its reading points, and no further', () => {
    const taken = (shows: string) =>
      way('vacuum-breaker', 'pvb', { shows }).flatMap((s) => s.remove ?? [])
    expect(taken('air-inlet')).not.toContain('check-retainer')
    expect(taken('check')).toContain('check-retainer')
  })
  it('a seats-only job leaves the stroke alone', () => {
    const sets = (findings: Record<string, string>, jobs: string[] = []) =>
      way('dome-regulator', 'gas', findings, jobs).some((s) => s.set === 'stroke')
    expect(sets({})).toBe(false)
    for (const job of ['diaphragm', 'stem']) expect(sets({}, [job])).toBe(true)
    // A pin that has turned, or is bent, widens the work to it.
    expect(sets({ 'pin-turned': 'turned' })).toBe(true)
    expect(sets({ 'disc-pin': 'renew' })).toBe(true)
  })
  it('dry rings that are plump are lubricated, not renewed', () => {
    const steps = way('cycling-valve', 'usual', { 'spool-rings': 'clean' })
    // The retainer was off: its seal is new; no ring of spool or sleeve is.
    expect(steps.flatMap((s) => s.renew ?? [])).toEqual(['retainer-seal'])
    expect(says(steps)).toMatch(/Lubricant on all rings.*never in a port/)
  })
  it('a water reducer is no gas job: no word of gas, no gas licence', () => {
    const water = says(way('spring-regulator', 'water'))
    expect(water).not.toMatch(/qualified|explode|purge|ignition/)
    expect(water).toMatch(/Bleed the air/)
    const gates = way('spring-regulator', 'gas').map((s) => s.gate)
    expect(gates).toContain('qualified')
  })
  it('the normally open valve has no O-ring on its stem', () => {
    expect(says(way('high-pressure-water-valve', 'normally-open'))).not.toMatch(/Stem O-ring off/)
  })
  it('a bonded seal is renewed with its cylinder', () => {
    const renewed = way('nose-seal-coupler', 'bonded').flatMap((s) => (s.renew ? [s.renew] : []))
    expect(renewed).toContain('seal-cylinder')
    expect(renewed).not.toContain('nose-seal')
  })
})
