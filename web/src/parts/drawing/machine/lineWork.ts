/** One stroke of a drawing: its outline, what moves, what seals, what pushes. */
interface Stroke {
  readonly d: string
  readonly as: 'body' | 'line' | 'moves' | 'seal' | 'spring'
}
const body = (d: string): Stroke => ({ d, as: 'body' })
const line = (d: string): Stroke => ({ d, as: 'line' })
const moves = (d: string): Stroke => ({ d, as: 'moves' })
const seal = (d: string): Stroke => ({ d, as: 'seal' })
const spring = (d: string): Stroke => ({ d, as: 'spring' })
const coil = (x: number, y: number, width: number, turns: number, pitch: number) =>
  spring(
    `M${x} ${y}${Array.from({ length: turns }, (_, n) => `l${n % 2 ? -width : width} ${pitch}`).join('')}`,
  )

/** Machines in section as line-work, 320 wide and 220 high; the pipe is at 170 where there is one. */
export const lineWork: Readonly<Record<string, readonly Stroke[]>> = {
  'check valve': [
    body('M10 150H310M10 190H310'),
    line('M160 190V206M140 206H180'),
    moves('M160 60V158M134 158H186'),
    seal('M134 150H186'),
    body('M126 20H194V96H126z'),
    coil(140, 28, 40, 6, 6),
    line('M126 70H96'),
  ],
  actuator: [
    body('M110 16H210V112H110z'),
    moves('M112 64H208M160 64V176'),
    seal('M112 58V70M208 58V70'),
    coil(134, 20, 52, 6, 7),
    line('M132 112V176H188V112M110 96H80'),
    body('M124 176H196V204H124z'),
  ],
  cylinder: [
    body('M110 40H210V160H110z'),
    line('M104 28H216V44H104z'),
    moves('M112 100H208M160 100V200'),
    seal('M112 92V108M208 92V108'),
    coil(134, 106, 52, 6, 8),
    line('M110 60H84'),
  ],
  'control valve': [
    body(
      'M10 150C60 150 90 120 120 120H200C230 120 260 150 310 150M10 190C60 190 90 204 120 204H200C230 204 260 190 310 190',
    ),
    line('M110 176H140V160M180 160V176H210'),
    moves('M160 84V150M142 160L160 146L178 160z'),
    seal('M140 160H180'),
    body('M116 16H204V84H116z'),
    line('M132 36H188M132 52H170'),
  ],
  'mix-proof valve': [
    body('M10 60H310M10 100H310M10 150H310M10 190H310'),
    line('M134 100V150M186 100V150'),
    moves('M160 16V120M134 112H186M140 128H180M160 128V212'),
    seal('M134 106V118M186 106V118M140 134V146M180 134V146'),
  ],
  'on-off valve': [
    body('M120 16H200V84H120zM136 84V204H184V84'),
    moves('M160 50V186M122 50H198'),
    seal('M152 186L160 200L168 186M148 110H172'),
    coil(140, 54, 40, 4, 7),
    line('M136 150H60M160 204V216'),
    line('M184 104h10M184 128h10M184 152h10'),
  ],
  'spool valve': [
    body('M50 70H270V150H50z'),
    moves('M56 96H264M56 124H264M96 96V124M136 96V124M184 96V124M224 96V124'),
    seal('M92 92V128M140 92V128M180 92V128M228 92V128'),
    line('M110 150V190M160 150V190M210 150V190M116 70V34M204 70V34'),
  ],
  'cycling valve': [
    body('M60 70H260V150H60zM260 86H286V134H260z'),
    moves('M74 98H246M74 122H246M104 98V122M150 98V122M200 98V122'),
    seal('M100 94V126M154 94V126M196 94V126M64 102V118M254 102V118'),
    line('M130 150V186M190 150V186M160 70V36'),
  ],
  'pulse valve': [
    body('M70 60H210V160H70zM210 92H292V128H210'),
    moves('M130 64V156M130 110H290'),
    seal('M124 64V72M136 64V72M124 148V156M136 148V156M228 98V122M252 98V122'),
    spring('M140 96l8 28l8 -28l8 28l8 -28l8 28l8 -28l8 28'),
    line('M90 60V30'),
  ],
  'transfer valve': [
    body('M30 80H290V160H30z'),
    line('M60 160V204M160 160V204M260 160V204M160 80V44'),
    moves('M44 120H276M144 100V140M176 100V140'),
    seal('M84 92V148M236 92V148M160 104V136'),
    line('M14 120H30M290 120H306'),
  ],
  coupler: [
    body('M100 200C100 130 120 110 160 110S220 130 220 200zM120 110V70H200V110'),
    moves('M160 30V150M132 158H188'),
    seal('M118 196H202'),
    line('M160 88H250L284 62'),
    line('M108 176L84 160M212 176L236 160'),
    coil(142, 96, 36, 5, 9),
  ],
  sampler: [
    body('M10 40H310M10 80H310'),
    body('M126 80H194V150H126z'),
    moves('M160 50V196M134 60H186M134 112H186'),
    seal('M130 60H138M182 60H190M130 112H138M182 112H190'),
    body('M132 150H188V206H132z'),
    line('M194 130H236V176M188 180H230'),
  ],
  injector: [
    body('M110 20H210V120H110zM136 120V176H184V120'),
    moves('M160 40V160M116 62H204M144 160H176'),
    seal('M112 62H120M200 62H208M140 152V166M180 152V166'),
    line('M110 40H40M210 40H280M160 176V212M148 188H172'),
    coil(140, 70, 40, 4, 9),
  ],
}
