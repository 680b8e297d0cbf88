/**
 * What people say for the same thing, as the words that symptoms are found by. Longer sayings stand first: what a weep
 * hole is must not be read as weeping.
 */
const SAYINGS: readonly (readonly [RegExp, string])[] = [
  [/\b(weep|weeping|indicator|tell-?tale|witness) ?holes?\b/g, ' hole '],
  [
    /\b(will not|won.?t|does ?n.?t|does not|do not|cannot|can.?t|never|not|fails to) (shut|close|closes|seat|seal|hold)( off| tight)?\b/g,
    ' notshut ',
  ],
  [/\b(passes|passing|lets? by|stays open|stuck open)( when shut)?\b/g, ' notshut '],
  [
    /\b(will not|won.?t|does ?n.?t|does not|do not|cannot|can.?t|never|fails to) (open|lift)( at all)?\b/g,
    ' notopen ',
  ],
  [/\b(stays shut|stuck shut|stays closed|stuck closed)\b/g, ' notopen '],
  [
    /\b(will not|won.?t|does ?n.?t|does not|do not|cannot|can.?t|never|no longer|fails to) (move|cycle|shift|stroke|go)\b/g,
    ' notmove ',
  ],
  [
    /\b(nothing is drawn|nothing drawn|nothing flows|nobody draws|no flow|no demand|at rest|downstream (stops|is shut|shut|closed)|(water|flow) stops|stops? flowing)\b/g,
    ' noflow ',
  ],
  [/\b(under (flow|load)|when (it )?flows|with flow|at full flow)\b/g, ' flow '],
  [/\b(pressure )?(rises|climbs|builds up|goes up|keeps rising)( on)?\b/g, ' creep '],
  [/\b(pressure )?(sinks|droops?|drops|falls|starves|is low|low pressure)\b/g, ' droop '],
  [
    /\b(hunts?|hunting|oscillat\w+|surg\w+|swings?|swinging|flutters?|pulsat\w+|unstable)\b/g,
    ' hunt ',
  ],
  [/\b(chatter(s|ing)?|slam(s|ming)?|hammer(s|ing)?|bang(s|ing)?|knock(s|ing)?)\b/g, ' chatter '],
  [
    /\b(drips?|dripping|weeps?|weeping|wet|leaks?|leaking|leaky|seeps?|dribbles?|runs|spills?|spits?)\b/g,
    ' leak ',
  ],
  [/\b(hiss(es|ing)?|blows?|blowing|exhausts?|breathes?|escapes?|bleeds?)\b/g, ' blow '],
  [/\b(creeps?|creeping)\b/g, ' creep '],
  [/\b(binds?|binding|stiff|sticks?|sticky|hangs?|jams?|jammed|catches|seized|stuck)\b/g, ' bind '],
  [/\b(slow|slowly|sluggish|lazy)\b/g, ' slow '],
  [/\b(drifts?|drifted|wanders?|moved off)\b/g, ' drift '],
  [/\b(jerks?|jerkily|jerky|uneven)\b/g, ' jerk '],
  [/\b(cover|bonnet|lid|cap)s?\b/g, ' cover '],
  [/\b(joint|flange|casing|case)s?\b/g, ' joint '],
  [/\b(nozzle|spout|outlet)\b/g, ' outlet '],
  [/\b(breather|vent)s?\b/g, ' vent '],
]

/** Words that say nothing of a symptom. */
const SILENT = new Set(
  'a an and are as at be been by for from has have in is it its of on only or so that the then there to too was when while with'.split(
    ' ',
  ),
)

/** The words of a saying by which symptoms are found: one for all that people say for it, without endings. */
export function symptomWords(text: string): string[] {
  let said = ` ${text.toLowerCase().replaceAll('’', "'")} `
  for (const [saying, word] of SAYINGS) said = said.replaceAll(saying, word)
  return said
    .split(/[^a-z0-9]+/)
    .filter((w) => w.length > 1 && !SILENT.has(w))
    .map((w) => (w.length > 4 ? w.replace(/(ing|ed|es|s)$/, '') : w))
}
