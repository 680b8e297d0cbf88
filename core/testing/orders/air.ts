import type { Order } from './order'

/** The order of work on actuators and pneumatic valves. */
export const airOrders: readonly Order[] = [
  [
    'spring-cylinder',
    'to-closed',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /what the signal does.*without air/, // 1
      /25, 50, 75/, // 2
      /Written consent/,
      /Process isolated/, // 3
      // Marked before it is loosened.
      /how far the stem stands/,
      /Stem clamp loosened|stem clamp loosened/,
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
      // Marked before it is loosened.
      /how far the stem stands/,
      /Stem clamp loosened|stem clamp loosened/,
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
      /Sizing sleeve on the spindle/,
      /Rings of the head.*slowest of all/s, // 22
      /Sizing sleeves on/, // 24
      /Look at all three once more/, // 25
      /Upper housing pressed/, // 27
      /spring in from above, seated/, // 28
      /dead straight.*breaks/s, // 29
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
      /arm turned to the middle of the slot/, // 10
      /Left flange ring off/, // 9
      // The shuttle is wider than the bore of a seat: seats come out before it, and go in after it.
      /blunt wedge.*not marked/s, // 11
      /Shuttle with its shaft straight out/, // 10
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
      /New left seat/, // 21
      /New right seat/,
      /Left flange ring over the shaft, turned a little.*outer rings/s, // 22
      /Move the shuttle by its arm/, // 23
      /clicks at both ends/, // 24
      /hold each side and listen/, // 25
      /Towers up slowly/, // 26
      /control line stays down/,
      /full cycle/, // 27
    ],
  ],
  ['threaded-lid-cylinder', 'lid', [/three new seals on the lid/, /Lid tight/]],
]
