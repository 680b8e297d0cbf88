import type { Order } from './order'

/** The order of work on gas and air regulators. */
export const gasOrders: readonly Order[] = [
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
      /Film on the O-ring of the flange and on the flange/, // 24
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
      // What came off first goes on last: the cap closes over the indicator.
      /fitting tight/, // 28
      /Washers in their order, nut/,
      /protective cap, last/,
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
    ['trim', 'flange'],
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
      /the diaphragm is below: press it hard up.*lowers the disc.*raises the disc/,
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
      /burners off/, // 5
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
    'house-regulator',
    'usual',
    [
      // Numbers are those of the order of work on the machine’s sheet.
      /vent: clear, pointing down/, // 1
      /height of the ferrule.*do not turn it/, // 2
      /where does the relief start/, // 3
      /burners off/, // 5
      /Close the outlet valve/, // 6
      /Close the inlet valve/,
      /ferrule as found/, // 7
      /Turn the ferrule out.*count its turns.*Never a case screw/s, // 8
      /Ferrule out through the top/,
      /Spring up and out; read its range label/,
      /Witness mark from case to body/, // 9
      /all but two opposite/,
      /Case off/,
      /unhooked from the lever.*Never bend the lever/, // 10
      /Relief nut off its post; count its turns/,
      /Relief pad/,
      /Diaphragm to the light/, // 12
      /Pivot pin out/, // 11
      /Lever out/,
      /drawn inward/,
      /its gasket counted/,
      /Stem in/, // 13
      /Lever in, straight/,
      /Pivot pin home/,
      /Diaphragm on.*holes in line/i,
      /Relief nut to its recorded turns/, // 14
      /hooked on the lever; slack for its travel/, // 15
      /vent down or as marked/, // 17
      /Spring in through the top/, // 16
      /spring loads a little/,
      /crosswise in passes/,
      /springs back|Push the diaphragm/, // 18
      /Ferrule to its recorded height/, // 19
      /ready as the flow point/, // 20
      /Crack the inlet/,
      /Soap every joint/,
      /Draw the small flow and set/, // 21
      /where the relief starts, where it shuts/,
      /seal wire/, // 22
      /light and check each appliance/, // 23
    ],
  ],
]
