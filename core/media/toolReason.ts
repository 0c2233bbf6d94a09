/** What an outside program said, put so that it helps. */
export interface ToolReason {
  /** Part of a sentence, in small letters and without a full stop: `the drive is full`. */
  readonly reason: string
  /** Its own lines that say something, each once, without what only concerns the program; at most twelve. */
  readonly lines: readonly string[]
}

/** Lines that say nothing of the file: that one was said again, or that the program comes to its end. */
const NOISE =
  /^(Last message repeated \d+ times?|Error marking filters as finished|Conversion failed!|Terminating thread .*|Task finished with error code.*|Nothing was (written|encoded).*|Error (opening|closing) (input|output) files?:?.*|Exiting .*|Error initializing output stream .*--)$/

/**
 * Families of what the media programs say, the ones that explain most first. Source: the texts of FFmpeg 5.1 as Debian
 * has it, met with files made for each (`tests/outside/tool.test.ts`).
 */
const FAMILIES: readonly (readonly [RegExp, string])[] = [
  [/No space left on device/, 'the drive is full'],
  [/Input\/output error/, 'the card or drive gives an error where it is read'],
  [/moov atom not found/, 'the index is missing, as after a battery that died'],
  [/Protocol .* not on whitelist/, 'it names other files, and was not opened'],
  [/whitelist/i, 'it is of a kind that is not opened here, such as a list of other files or a bare stream'],
  [/Cannot allocate memory|Error allocating|Out of memory/i, 'it asks for more memory than one file is given'],
  [/(Decoder|codec) .*not found|No decoder|Unknown decoder/i, 'nothing here decodes what it is coded in'],
  [
    /Invalid NAL|[Ee]rror while decoding|corrupt|concealing|decode_slice|Error submitting packet/,
    'it is damaged and cannot be decoded',
  ],
  [/patchwelcome|not (yet )?implemented|unsupported/i, 'it is coded in a way that nothing here knows'],
  [/does not contain any stream|matches no streams/, 'no picture and no sound that could be decoded is in it'],
  [/could not find codec parameters/i, 'what it is coded in cannot be told from it'],
  [/Invalid (data found|argument)/, 'what is in it is no picture and no sound'],
  [/Permission denied/, 'this account may not read it'],
]

const MOST_LINES = 12

/** The reason in what a program said when it gave up: of a known family, else its first line that says something. */
export function toolReason(program: string, messages: string): ToolReason {
  const said = messages
    .split('\n')
    .map((line) =>
      line
        .replace(/^\s*(\[[^\]]*\]\s*)*/, '')
        .replace(/(\/dev\/fd\/|pipe:)\d+: /, '')
        .trim(),
    )
    .filter((line) => line !== '' && !NOISE.test(line))
  const lines = [...new Set(said)].slice(0, MOST_LINES)
  const family = FAMILIES.find(([words]) => said.some((line) => words.test(line)))
  return {
    reason: family?.[1] ?? lines[0]?.replace(/\.$/, '') ?? `the program ${program} ended and gave no reason`,
    lines,
  }
}

/** As a sentence of its own. */
export const reasonSentence = (reason: string): string => `${reason.charAt(0).toUpperCase()}${reason.slice(1)}.`

/** A line of a program among the troubles of a task, with whose it is. */
export const toolLine = (program: string, line: string): string => `${program}: ${line}`

/** Whether a trouble of a task is such a line. */
export const isToolLine = (trouble: string): boolean => /^(ffmpeg|ffprobe): /.test(trouble)
