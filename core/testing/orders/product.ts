import type { Order } from './order'

/** The order of work on couplers, samplers and process valves. */
export const productOrders: readonly Order[] = [
  [
    'air-blow-check',
    'usual',
    [
      /press down and push/,
      /at the top/,
      /out at the bottom/,
      /it drops inside/,
      /no scratches/,
      /springs and clips/,
      /centres itself/,
      /seats evenly/,
    ],
  ],
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
      /Service oil on the O-ring of the seat/,
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
      // The barrel is never slid over greased seals.
      /Piston into the barrel/,
      /onto the barrel.*plain hole is the drain/s,
      /Barrel and head together/,
      /onto the body.*outlet straight down/s,
      /At the clamp of the process/,
    ],
  ],
]
