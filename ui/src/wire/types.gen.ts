// Written by web/wiretypes from the Go structs. Do not edit; run make types.

export type Role = "staff" | "student" | "front";

export type Connect = {
  session: string;
  as: Role;
  looks?: boolean;
};

export type Code = "administrators-only" | "answer-empty" | "answer-final" | "bad-id" | "bad-link" | "bad-paper" | "bad-size" | "bad-style" | "board-full" | "board-incorrect" | "card-mistyped" | "card-unknown" | "cards-alike" | "changed-since" | "code-mistyped" | "code-unknown" | "date-past" | "door-closed" | "door-shut" | "email-bad" | "email-taken" | "empty-note" | "failed" | "file-empty" | "file-kind" | "file-locked" | "file-newer" | "file-too-large" | "file-unreadable" | "frame-deleted" | "frame-exists" | "frame-in-use" | "front-gone" | "front-unknown" | "handed-in" | "homework-in" | "homework-over" | "invitation-gone" | "join-needed" | "last-administrator" | "last-frame" | "last-teacher" | "lesson-running" | "lesson-runs" | "level-twice" | "locked" | "look-only" | "malformed" | "mark-exists" | "name-control" | "name-empty" | "name-not-listed" | "name-too-long" | "name-waits" | "no-guests" | "no-homework" | "no-lesson-now" | "no-mail" | "no-question" | "no-rehearsal" | "no-replies" | "no-such-choice" | "no-such-class" | "no-such-cover" | "no-such-criterion" | "no-such-frame" | "no-such-level" | "no-such-mark" | "no-such-picture" | "no-such-piece" | "no-such-poll" | "no-such-question" | "no-such-set" | "no-such-sheet" | "no-such-work" | "no-timer" | "nobody-to-pick" | "not-a-number" | "not-for-guests" | "not-found" | "not-given" | "not-led" | "not-let-in" | "not-shared" | "not-yours" | "nothing-to-take-out" | "other-teachers" | "out-of-frame" | "own-note" | "page-failed" | "password-common" | "password-short" | "password-wrong" | "picture-too-large" | "picture-unreadable" | "poll-answered" | "poll-closed" | "poll-open" | "poll-revealed" | "put-away" | "questions-off" | "questions-wait" | "rehearsals-full" | "round-over" | "second-missing" | "second-needed" | "second-wrong" | "sent-out" | "session-ended" | "session-full" | "share-full" | "sheet-full" | "sign-in-needed" | "sign-in-wrong" | "sound-long" | "sound-unreadable" | "still-there" | "stroke-invalid" | "text-control" | "text-too-long" | "too-large" | "too-many" | "too-many-fronts" | "too-many-rounds" | "too-many-tabs" | "too-slow" | "unavailable" | "unit-missing" | "unit-wrong" | "unknown-operation" | "wrong-origin";

export type Problem = {
  type: string;
  title: string;
  status: number;
  detail?: string;
  code: Code;
};

export type Failure = {
  problem?: Problem;
};

export type Cursor = {
  seq: number;
  after?: string;
};

export type FrontKind = "gathering" | "frame" | "sheets" | "past" | "poll" | "words" | "nothing";

export type SaidGroup = {
  name: string;
  count: number;
  texts?: Array<string>;
};

export type Front = {
  kind: FrontKind;
  frame?: string;
  owners?: Array<string>;
  to?: number;
  poll?: string;
  result?: boolean;
  groups?: Array<SaidGroup>;
  words?: string;
  from?: { [key: string]: number };
};

export type Hello = {
  known?: Array<string>;
  have?: { [key: string]: Cursor };
  board?: number;
  show?: Front;
};

export type Person = {
  id: string;
  name: string;
  here?: boolean;
  at?: string;
  away?: boolean;
  removed?: boolean;
  student?: string;
};

export type PaperKind = "plain" | "dotted" | "ruled" | "squared" | "handwriting" | "axes" | "number-line" | "staff" | "picture";

export type Ruling = "even" | "tall" | "low";

export type Axis = {
  from: number;
  to: number;
  step: number;
  label?: string;
};

export type Paper = {
  kind: PaperKind;
  dark?: boolean;
  step?: number;
  unit?: string;
  ruling?: Ruling;
  x?: Axis;
  y?: Axis;
  bare?: boolean;
  picture?: string;
  alt?: string;
};

export type Arrangement = "class" | "groups" | "individual";

export type Permission = "look" | "add" | "together";

export type Column = {
  id: string;
  title?: string;
  prompt?: string;
};

export type Order = "" | "agreed" | "name" | "tint" | "hand";

export type Layout = {
  columns?: Array<Column>;
  order?: Order;
};

export type Criterion = {
  id: string;
  name: string;
  words?: { [key: string]: string };
};

export type Feedback = "" | "end" | "once";

export type QuestionSet = {
  ownPace?: boolean;
  feedback?: Feedback;
  tries?: number;
  seconds?: number;
  race?: boolean;
};

export type Layer = "" | "piece" | "supply";

export type Stand = "shown" | "held" | "hidden" | "removed";

export type Standing = {
  is: Stand;
  by: string;
  at: number;
  in?: string;
  was?: Standing;
};

export type Tint = "snow" | "apricot" | "rose" | "lilac" | "glacier" | "moss";

export type Note = {
  text: string;
  tint: Tint;
  size?: number;
  margin?: boolean;
  column?: string;
  rank?: number;
  stack?: string;
};

export type Ink = "night" | "ember" | "fern" | "lake" | "plum" | "snow";

export type Align = "" | "centre" | "end";

export type List = "" | "bullets" | "numbers";

export type Text = {
  text: string;
  size: number;
  ink: Ink;
  bold?: boolean;
  align?: Align;
  list?: List;
};

export type Nib = "" | "marker" | "highlighter" | "brush";

export type Stroke = {
  points: Array<number>;
  ink: Ink;
  width: number;
  nib?: Nib;
};

export type Form = "rect" | "rounded" | "ellipse" | "triangle" | "diamond" | "bubble" | "star" | "line";

export type Fill = "" | "snow" | "apricot" | "rose" | "lilac" | "glacier" | "moss";

export type Shape = {
  form: Form;
  ink: Ink;
  fill?: Fill;
  width: number;
  dash?: boolean;
  text?: string;
  lean?: number;
};

export type Anchor = {
  mark?: string;
  x: number;
  y: number;
};

export type Heads = "" | "to" | "both";

export type Connector = {
  from: Anchor;
  to: Anchor;
  ink: Ink;
  width: number;
  dash?: boolean;
  heads?: Heads;
};

export type Sign = "right" | "unsure" | "question" | "idea" | "star" | "heart" | "pin" | "alert";

export type Stamp = {
  sign: Sign;
};

export type Picture = {
  picture: string;
  alt?: string;
};

export type Link = {
  url: string;
  title?: string;
};

export type Table = {
  rows: Array<Array<string>>;
};

export type Was = {
  through: number;
  asked: Question;
};

export type Option = {
  id: string;
  text: string;
  picture?: string;
  right?: boolean;
  mistake?: string;
};

export type ChoiceAsked = {
  options: Array<Option>;
};

export type SeveralAsked = {
  options: Array<Option>;
};

export type TruthSays = "true" | "false" | "notSure";

export type TruthAsked = {
  is?: TruthSays;
  notSure?: boolean;
  mistake?: string;
};

export type Nearness = "exact" | "absolute" | "relative" | "figures" | "decimals";

export type Tolerance = {
  is: Nearness;
  below?: string;
  above?: string;
  places?: number;
  withoutLow?: boolean;
  withoutHigh?: boolean;
};

export type UnitRule = "may" | "must" | "";

export type NumberMistake = {
  name: string;
  from: string;
  to?: string;
};

export type NumberAsked = {
  language: string;
  answer?: string;
  tolerance: Tolerance;
  unit?: string;
  unitRule?: UnitRule;
  mistakes?: Array<NumberMistake>;
};

export type TextMistake = {
  name: string;
  texts: Array<string>;
};

export type ShortAsked = {
  accepted?: Array<string>;
  slips?: number;
  withCase?: boolean;
  mistakes?: Array<TextMistake>;
};

export type OpenAsked = {
};

export type ScaleAsked = {
  steps: number;
  low: string;
  high: string;
};

export type RankAsked = {
  options: Array<Option>;
};

export type OrderMistake = {
  name: string;
  order: Array<string>;
};

export type OrderAsked = {
  options: Array<Option>;
  mistakes?: Array<OrderMistake>;
};

export type MatchPair = {
  left: string;
  right: string;
};

export type PairMistake = {
  name: string;
} & MatchPair;

export type MatchAsked = {
  left: Array<Option>;
  right: Array<Option>;
  pairs?: Array<MatchPair>;
  mistakes?: Array<PairMistake>;
};

export type TextBlank = {
  id: string;
  accepted?: Array<string>;
  offered?: Array<string>;
  mistakes?: Array<TextMistake>;
};

export type TextPart = {
  text?: string;
  blank?: TextBlank;
};

export type BlanksAsked = {
  parts: Array<TextPart>;
  slips?: number;
};

export type InBox = {
  thing: string;
  box: string;
};

export type BoxMistake = {
  name: string;
} & InBox;

export type BoxesAsked = {
  boxes: Array<Option>;
  things: Array<Option>;
  homes?: Array<InBox>;
  mistakes?: Array<BoxMistake>;
};

export type PlacePoint = {
  x: number;
  y: number;
};

export type PlaceArea = {
  id: string;
  name: string;
  corners: Array<PlacePoint>;
  right?: boolean;
  mistake?: string;
};

export type PlacesAsked = {
  picture: string;
  areas?: Array<PlaceArea>;
  most: number;
};

export type DrawAsked = {
};

export type CardPair = {
  one: Option;
  other: Option;
};

export type MemoryAsked = {
  pairs: Array<CardPair>;
};

export type Asked = (
  | { kind: "choice"; choice: ChoiceAsked }
  | { kind: "several"; several: SeveralAsked }
  | { kind: "truth"; truth: TruthAsked }
  | { kind: "number"; number: NumberAsked }
  | { kind: "short"; short: ShortAsked }
  | { kind: "open"; open: OpenAsked }
  | { kind: "scale"; scale: ScaleAsked }
  | { kind: "rank"; rank: RankAsked }
  | { kind: "order"; order: OrderAsked }
  | { kind: "match"; match: MatchAsked }
  | { kind: "blanks"; blanks: BlanksAsked }
  | { kind: "boxes"; boxes: BoxesAsked }
  | { kind: "places"; places: PlacesAsked }
  | { kind: "draw"; draw: DrawAsked }
  | { kind: "memory"; memory: MemoryAsked }
);

export type Question = {
  text: string;
  picture?: string;
  sound?: string;
  link?: string;
  objectives?: Array<string>;
  why?: string;
  sure?: boolean;
  shuffle?: boolean;
  insteadOf?: string;
  seconds?: number;
  was?: Array<Was>;
} & Asked;

export type ChoiceGiven = {
  option: string;
};

export type SeveralGiven = {
  options: Array<string>;
};

export type TruthGiven = {
  is: TruthSays;
};

export type TextGiven = {
  text: string;
};

export type ScaleGiven = {
  step: number;
};

export type OrderGiven = {
  order: Array<string>;
};

export type MatchGiven = {
  pairs: Array<MatchPair>;
};

export type InBlank = {
  blank: string;
  text: string;
};

export type BlanksGiven = {
  in: Array<InBlank>;
};

export type BoxesGiven = {
  in: Array<InBox>;
};

export type PlacesGiven = {
  at: Array<PlacePoint>;
};

export type DrawGiven = {
  done: boolean;
};

export type MemoryGiven = {
  found: Array<string>;
  turns: number;
};

export type AnswerValue = (
  | { kind: "choice"; choice: ChoiceGiven }
  | { kind: "several"; several: SeveralGiven }
  | { kind: "truth"; truth: TruthGiven }
  | { kind: "number"; number: TextGiven }
  | { kind: "short"; short: TextGiven }
  | { kind: "open"; open: TextGiven }
  | { kind: "scale"; scale: ScaleGiven }
  | { kind: "rank"; rank: OrderGiven }
  | { kind: "order"; order: OrderGiven }
  | { kind: "match"; match: MatchGiven }
  | { kind: "blanks"; blanks: BlanksGiven }
  | { kind: "boxes"; boxes: BoxesGiven }
  | { kind: "places"; places: PlacesGiven }
  | { kind: "draw"; draw: DrawGiven }
  | { kind: "memory"; memory: MemoryGiven }
);

export type Sureness = "sure" | "unsure" | "";

export type Answer = {
  poll: string;
  round: number;
  value: AnswerValue;
  before?: Array<AnswerValue>;
  sure?: Sureness;
  read?: string;
  late?: boolean;
  offline?: boolean;
};

export type Handed = {
  round: number;
};

export type Reply = {
  to: string;
  text: string;
};

export type Remark = {
  text: string;
};

export type Cover = {
  tint: Tint;
  text?: string;
};

export type Placed = {
  piece: string;
};

export type Body = (
  | { kind: "note"; note: Note }
  | { kind: "text"; text: Text }
  | { kind: "stroke"; stroke: Stroke }
  | { kind: "shape"; shape: Shape }
  | { kind: "connector"; connector: Connector }
  | { kind: "stamp"; stamp: Stamp }
  | { kind: "picture"; picture: Picture }
  | { kind: "link"; link: Link }
  | { kind: "table"; table: Table }
  | { kind: "poll"; poll: Question }
  | { kind: "answer"; answer: Answer }
  | { kind: "handed"; handed: Handed }
  | { kind: "reply"; reply: Reply }
  | { kind: "remark"; remark: Remark }
  | { kind: "cover"; cover: Cover }
  | { kind: "placed"; placed: Placed }
);

export type Element = {
  id: string;
  author?: string;
  z: number;
  at: number;
  x: number;
  y: number;
  w: number;
  h: number;
  turn?: number;
  group?: string;
  layer?: Layer;
  tray?: boolean;
  standing?: Standing;
  by?: string;
  agreed?: Array<string>;
} & Body;

export type Frame = {
  id: string;
  title: string;
  prompt: string;
  paper: Paper;
  arrangement: Arrangement;
  permission: Permission;
  layout: Layout;
  replies?: boolean;
  notes?: string;
  seconds?: number;
  objectives?: Array<string>;
  criteria?: Array<Criterion>;
  set?: QuestionSet;
  prepared: Array<Element>;
};

export type MarkAt = {
  at: number;
  mark: Element;
};

export type ContentChange = {
  from: string;
  gone?: Array<string>;
  put?: Array<MarkAt>;
};

export type Phase = "open" | "closed" | "revealed";

export type PollState = {
  phase: Phase;
  round: number;
  openedAt?: number;
  closesAt?: number;
  closedAt?: number;
};

export type Pace = "led" | "own";

export type Station = {
  frame: string;
  title: string;
};

export type StudentGroup = {
  number: number;
  members: Array<string>;
};

export type Timer = {
  endsAt: number;
  length: number;
  sound?: boolean;
  light?: boolean;
  look?: boolean;
};

export type AtBoard = {
  student: string;
  until?: number;
};

export type Walking = {
  frame: string;
  stops: Array<string>;
  number?: number;
  of: number;
  own?: boolean;
  each?: number;
  replies?: boolean;
  since: number;
};

export type TalkWith = {
  poll: string;
  with: Array<string>;
};

export type Homework = {
  since: number;
  until: number;
  closes?: boolean;
  longer?: { [key: string]: number };
};

export type Stage = {
  rev: number;
  title: string;
  frame: Frame;
  content: string;
  change?: ContentChange;
  number: number;
  of: number;
  polls: { [key: string]: PollState };
  pace: Pace;
  trail?: Array<Station>;
  group?: StudentGroup;
  timer?: Timer;
  locked?: boolean;
  lockedUntil?: number;
  atBoard?: AtBoard;
  walk?: Walking;
  talk?: TalkWith;
  paused?: boolean;
  ended: boolean;
  home?: Homework;
};

export type Part = {
  anew?: boolean;
  to: Cursor;
  more?: boolean;
  put: Array<Element>;
  gone?: Array<string>;
};

export type SheetView = {
  sheet: string;
  frame: string;
  owner: string;
} & Part;

export type VoiceSettings = {
  off?: boolean;
  forAll?: boolean;
  named?: boolean;
};

export type ClassQuestion = {
  id: string;
  by: string;
  text: string;
  at: number;
  agreed?: Array<string>;
  ticked?: boolean;
  hidden?: boolean;
};

export type Call = {
  student: string;
  at: number;
  coming?: boolean;
};

export type Picked = {
  student: string;
  of: number;
  at: number;
};

export type Told = {
  text: string;
  about?: string;
  at: number;
};

export type Voices = {
  rev: number;
  questions?: Array<ClassQuestion>;
  help?: Array<Call>;
  done?: { [key: string]: Array<string> };
  looked?: { [key: string]: number };
  picked?: Array<Picked>;
  told?: { [key: string]: Array<Told> };
  handed?: { [key: string]: number };
} & VoiceSettings;

export type AskedQuestion = {
  id: string;
  by?: string;
  text: string;
  agreed: number;
  ticked?: boolean;
};

export type SharedVoices = {
  rev: number;
  off?: boolean;
  forAll?: boolean;
  named?: boolean;
  questions: Array<AskedQuestion>;
};

export type Wait = "no" | "called" | "coming";

export type OwnVoices = {
  rev: number;
  questions: Array<AskedQuestion>;
  agreed: Array<string>;
  help: Wait;
  done: Array<string>;
  told?: Array<Told>;
  handed?: number;
};

export type Said = {
  all?: Voices;
  shared?: SharedVoices;
  own?: OwnVoices;
};

export type StudentHello = {
  me: Person;
  stage: Stage;
  people: Array<Person>;
  sheets: Array<SheetView>;
  worked: Array<string>;
  said: Said;
};

export type Objective = {
  id: string;
  text: string;
};

export type Board = {
  title: string;
  objectives?: Array<Objective>;
  criteria?: Array<Criterion>;
  frames: Array<Frame>;
};

export type Talk = {
  poll: string;
  groups: Array<Array<string>>;
  alone?: Array<string>;
};

export type AdviceBands = {
  from: number;
  to: number;
};

export type Walk = {
  frame: string;
  stops: Array<string>;
  at: number;
  own?: boolean;
  each?: number;
  replies?: boolean;
  since: number;
};

export type Locks = {
  all?: boolean;
  frames?: Array<string>;
  students?: Array<string>;
  until?: { [key: string]: number };
};

export type Holds = {
  words?: boolean;
  languages?: Array<string>;
  own?: Array<string>;
} & Locks;

export type Entry = "" | "list" | "known";

export type Doubt = "word" | "teacher" | "twice" | "letters" | "stranger";

export type Knock = {
  id: string;
  name: string;
  doubt?: Doubt;
};

export type Day = {
  from: number;
  until?: number;
};

export type State = {
  rev: number;
  terms: number;
  edition?: number;
  pace: Pace;
  frame: string;
  since?: number;
  from?: string;
  through?: string;
  reached: Array<string>;
  polls: { [key: string]: PollState };
  talk?: Talk;
  talked?: Array<[string, string]>;
  bands?: AdviceBands;
  lifted?: Array<string>;
  groups?: Array<Array<string>>;
  groupSize?: number;
  front: Front;
  walk?: Walk;
  timer?: Timer;
  atBoard?: AtBoard;
  locks: Locks;
  holds: Holds;
  nameless?: boolean;
  paused?: boolean;
  closed?: boolean;
  shut?: boolean;
  entry?: Entry;
  persons?: number;
  removed?: Array<string>;
  waiting?: Array<Knock>;
  admitted?: Array<Knock>;
  ended: boolean;
  home?: Homework;
  days?: Array<Day>;
  code?: string;
};

export type Listed = {
  id: string;
  name: string;
};

export type GroupSet = {
  id: string;
  name: string;
};

export type Work = {
  author: string;
  frame: string;
  marks: number;
  at: number;
};

export type StudentState = "notBegun" | "atWork" | "quiet" | "done" | "help" | "away" | "gone" | "removed";

export type Why = "help" | "coming" | "same" | "behind" | "quiet" | "wrong" | "unseen" | "notBegun" | "none";

export type NextRow = {
  student: string;
  frame: string;
  state: StudentState;
  since?: number;
  why: Why;
  n?: number;
  picked?: number;
  seen?: boolean;
};

export type Next = {
  rows: Array<NextRow>;
};

export type Waiting = {
  sheet: string;
  frame: string;
  mark: Element;
  words?: Array<string>;
};

export type Queue = {
  first: Array<Waiting>;
  count: number;
};

export type StaffHello = {
  board?: Board;
  state: State;
  code: string;
  className: string;
  expected: Array<Listed>;
  sets?: Array<GroupSet>;
  seats?: Array<string>;
  people: Array<Person>;
  work: Array<Work>;
  next: Next;
  queue: Queue;
  sheets: Array<SheetView>;
  practice?: boolean;
  fronts: number;
  said: Said;
};

export type Interval = {
  low: number;
  high: number;
};

export type Judged = {
  right: number;
  partly: number;
  wrong: number;
  span: Interval;
};

export type Named = {
  name: string;
  count: number;
};

export type Bar = {
  id: string;
  text: string;
  count: number;
  span: Interval;
  right?: boolean;
  mistake?: string;
};

export type BarsChart = {
  bars: Array<Bar>;
};

export type Bin = {
  low: number;
  high: number;
  count: number;
};

export type NumbersChart = {
  bins: Array<Bin>;
  values: Array<number>;
  median: number;
  middle?: Interval;
  band?: Interval;
  unit?: string;
};

export type Rung = {
  id: string;
  text: string;
  points: number;
  mean: number;
  first: number;
  place?: number;
};

export type LadderChart = {
  rungs: Array<Rung>;
  w?: number;
};

export type Verdict = "right" | "partly" | "wrong" | "";

export type TextCount = {
  text: string;
  count: number;
  verdict?: Verdict;
  mistake?: string;
};

export type TextsChart = {
  texts: Array<TextCount>;
  more?: number;
};

export type GridCell = {
  text?: string;
  count: number;
  right?: boolean;
  mistake?: string;
};

export type GridRow = {
  text: string;
  cells: Array<GridCell>;
  more?: number;
};

export type GridChart = {
  rows: Array<GridRow>;
  columns?: Array<string>;
};

export type AreaCount = {
  count: number;
} & PlaceArea;

export type PointsChart = {
  picture: string;
  at: Array<PlacePoint>;
  areas?: Array<AreaCount>;
};

export type FindsChart = {
  students: Array<number>;
  pairs: number;
  turns: number;
};

export type Chart = (
  | { kind: "bars"; bars: BarsChart }
  | { kind: "numbers"; numbers: NumbersChart }
  | { kind: "ladder"; ladder: LadderChart }
  | { kind: "texts"; texts: TextsChart }
  | { kind: "grid"; grid: GridChart }
  | { kind: "points"; points: PointsChart }
  | { kind: "finds"; finds: FindsChart }
);

export type AnswerTally = {
  answered: number;
  verdicts?: Judged;
  mistakes?: Array<Named>;
  chart?: Chart;
};

export type Lane = {
  group: number;
  size: number;
  share: number;
};

export type SetCell = {
  tries: number;
  verdict?: Verdict;
};

export type SetRow = {
  student: string;
  handed?: boolean;
  right: number;
  cells: Array<SetCell>;
};

export type SetOutcome = {
  frame: string;
  round: number;
  asked: Array<string>;
  of: number;
  given: number;
  handed: number;
  all: number;
  now: number;
  lanes?: Array<Lane>;
  dots?: Array<number>;
  rows?: Array<SetRow>;
};

export type FrontStage = {
  show: Front;
  code?: string;
  seats: number;
  tally?: AnswerTally;
  set?: SetOutcome;
} & Stage;

export type Past = {
  at: number;
  marks: Array<Element>;
};

export type Language = "en" | "de";

export type FrontHello = {
  front: FrontStage;
  people: Array<Person>;
  sheets: Array<SheetView>;
  past?: Past;
  language: Language;
  dark?: boolean;
};

export type Open = {
  frame: string;
};

export type Opened = {
  sheets: Array<SheetView>;
};

export type Move = {
  frame: string;
  known?: Array<string>;
  have?: { [key: string]: Cursor };
};

export type Moved = {
  stage: Stage;
  sheets: Array<SheetView>;
};

export type Since = {
  sheet: string;
} & Cursor;

export type Ops = {
  ops: Array<unknown>;
};

export type Add = {
  mark: string;
  x: number;
  y: number;
  w: number;
  h: number;
  turn?: number;
  group?: string;
  free?: boolean;
  layer?: Layer;
  tray?: boolean;
} & Body;

export type Properties = {
  x?: number;
  y?: number;
  w?: number;
  h?: number;
  turn?: number;
  z?: number;
  group?: string;
  text?: string;
  tint?: Tint;
  fill?: Fill;
  ink?: Ink;
  width?: number;
  dash?: boolean;
  size?: number;
  margin?: boolean;
  column?: string;
  rank?: number;
  bold?: boolean;
  align?: Align;
  list?: List;
  form?: Form;
  from?: Anchor;
  to?: Anchor;
  heads?: Heads;
  alt?: string;
  url?: string;
  stroke?: Stroke;
  layer?: Layer;
  tray?: boolean;
  rows?: Array<Array<string>>;
  poll?: Question;
};

export type Set = {
  mark: string;
} & Properties;

export type Remove = {
  mark: string;
};

export type Restore = {
  mark?: string;
  in?: string;
};

export type Erase = {
  path: Array<number>;
  radius: number;
  part?: boolean;
};

export type Agree = {
  mark: string;
  yes: boolean;
};

export type Many = {
  steps: Array<Step>;
};

export type Hide = {
  mark: string;
};

export type Hold = {
  mark: string;
};

export type Show = {
  mark: string;
  read?: string;
};

export type Clear = {
  author?: string;
  since?: number;
};

export type Spot = {
  mark: string;
  x: number;
  y: number;
  w: number;
  h: number;
  size?: number;
  margin?: boolean;
};

export type Spread = {
  to?: Array<Spot>;
};

export type InStack = {
  stack?: string;
} & Spot;

export type Stack = {
  stack?: string;
  marks?: Array<string>;
  to?: Array<InStack>;
};

export type SetBack = {
  to?: number;
  of?: string;
};

export type SetAnswer = {
  poll: string;
  round: number;
  value?: AnswerValue;
  sure?: Sureness;
  offline?: boolean;
};

export type HandIn = {
  round: number;
};

export type Step = (
  | { kind: "add"; add: Add }
  | { kind: "set"; set: Set }
  | { kind: "remove"; remove: Remove }
  | { kind: "restore"; restore: Restore }
  | { kind: "erase"; erase: Erase }
  | { kind: "agree"; agree: Agree }
  | { kind: "many"; many: Many }
  | { kind: "hide"; hide: Hide }
  | { kind: "hold"; hold: Hold }
  | { kind: "show"; show: Show }
  | { kind: "clear"; clear: Clear }
  | { kind: "spread"; spread: Spread }
  | { kind: "stack"; stack: Stack }
  | { kind: "setBack"; setBack: SetBack }
  | { kind: "answer"; answer: SetAnswer }
  | { kind: "handIn"; handIn: HandIn }
);

export type Op = {
  id: string;
  sheet: string;
  back?: boolean;
} & Step;

export type OpResult = {
  seq?: number;
  undo?: Op;
  problem?: Problem;
};

export type OpsReply = {
  results: Array<OpResult>;
};

export type CommandReply = {
  state: State;
};

export type Time = {
  now: number;
};

export type Sight = {
  away: boolean;
};

export type WalkTo = {
  owner?: string;
  known?: Array<string>;
  have?: { [key: string]: Cursor };
};

export type AtStop = {
  owner: string;
  stage: Stage;
  sheet: SheetView;
};

export type AskOutcome = {
  frame: string;
};

export type SureCounts = {
  sureRight: number;
  sureWrong: number;
  unsureRight: number;
  unsureWrong: number;
};

export type Advice = "explain" | "discuss" | "goOn";

export type Advised = {
  is: Advice;
  or?: Array<Advice>;
  right: number;
  of: number;
  span: Interval;
  bands: AdviceBands;
};

export type FlowEnd = {
  key: string;
  text: string;
  verdict?: Verdict;
};

export type AnswerFlow = {
  from: FlowEnd;
  to: FlowEnd;
  count: number;
};

export type GainBand = "low" | "medium" | "high";

export type RoundsCompared = {
  of: number;
  flows: Array<AnswerFlow>;
  kept: number;
  learned: number;
  lost: number;
  chance?: number;
  classGain?: number;
  band?: GainBand;
  meanGain?: number;
  meanOf?: number;
};

export type Reason = "unit" | "slips" | "";

export type Judgement = {
  verdict: Verdict;
  share: number;
  reason?: Reason;
  mistake?: string;
};

export type AnswerOf = {
  student: string;
  value: AnswerValue;
  says: string;
  sure?: Sureness;
  at: number;
  late?: boolean;
  offline?: boolean;
} & Judgement;

export type Outcome = {
  poll: string;
  round: number;
  of: number;
  waiting: Array<string>;
  late: number;
  offline: number;
  halfMs?: number;
  percent?: Array<number>;
  sure?: SureCounts;
  next?: Advised;
  moved?: RoundsCompared;
  answers: Array<AnswerOf>;
} & AnswerTally;

export type Outcomes = {
  outcomes: Array<Outcome>;
  sets?: Array<SetOutcome>;
};

export type AskVerdict = {
  sheet: string;
  poll: string;
  round: number;
};

export type OwnVerdict = {
  verdict: Verdict;
  reason?: Reason;
  share: number;
  right: string;
  why?: string;
  left?: number;
  tries?: number;
};

export type AskResults = {
  sheet: string;
};

export type Results = {
  verdicts: { [key: string]: OwnVerdict };
  right: number;
  partly: number;
  of: number;
};

export type Timeline = {
  at: Array<number>;
  by: Array<number>;
  people: Array<string>;
};

export type Moment = {
  seq: number;
  marks: Array<Element>;
};

export type Change = {
  seq: number;
  op?: string;
  by?: string;
  at?: number;
  put?: Array<Element>;
  gone?: Array<string>;
  dropped?: Array<string>;
  come?: Array<string>;
};

export type SheetChanges = {
  sheet: string;
  frame: string;
  owner: string;
  seq: number;
  changes: Array<Change>;
  work?: Array<Work>;
};

export type Reworked = {
  state: State;
  title: string;
  order: Array<string>;
  frames: Array<Frame>;
};

export type People = {
  people: Array<Person>;
  all?: boolean;
};

export type Fronts = {
  count: number;
};

export type Draw = {
  stroke: string;
  points: Array<number>;
  ink: Ink;
  width: number;
  nib?: Nib;
};

export type Point = {
  x: number;
  y: number;
};

export type Edit = {
  mark: string;
};

export type Pass = {
  sheet?: string;
  by?: string;
} & (
  | { kind: "draw"; draw: Draw }
  | { kind: "point"; point: Point }
  | { kind: "edit"; edit: Edit }
);

export type Passing = {
  sheet: string;
  passes: Array<Pass>;
};

export type News = (
  | { kind: "changes"; changes: SheetChanges }
  | { kind: "stage"; stage: Stage }
  | { kind: "state"; state: State }
  | { kind: "board"; board: Reworked }
  | { kind: "people"; people: People }
  | { kind: "front"; front: FrontStage }
  | { kind: "fronts"; fronts: Fronts }
  | { kind: "voices"; voices: Said }
  | { kind: "next"; next: Next }
  | { kind: "queue"; queue: Queue }
  | { kind: "outcome"; outcome: Outcomes }
  | { kind: "passing"; passing: Passing }
  | { kind: "walk"; walk: SheetChanges }
);

export type Tidy = {
  sheet: string;
  mark: string;
};

export type Tidier = {
  x: number;
  y: number;
  w: number;
  h: number;
  turn?: number;
} & Body;

export type Tidied = {
  clean?: Tidier;
  confidence?: number;
  smooth?: Tidier;
};

export type Go = {
  frame: string;
};

export type SetPace = {
  pace: Pace;
  through?: string;
};

export type SetPoll = {
  poll: string;
  phase: Phase;
};

export type Ask = {
  poll: string;
};

export type SetStep = "next" | "close" | "show" | "again";

export type TellSet = {
  frame: string;
  step: SetStep;
};

export type SetTalk = {
  poll?: string;
};

export type SetBands = AdviceBands;

export type Lift = {
  cover: string;
  down?: boolean;
};

export type Use = {
  frame: string;
  arrangement: Arrangement;
  permission: Permission;
  replies?: boolean;
};

export type Lay = {
  frame: string;
  layout: Layout;
};

export type Reword = {
  frame: string;
  title: string;
  prompt: string;
};

export type GroupBy = "seats" | "set" | "like" | "mixed";

export type SetGroups = {
  size: number;
  by?: GroupBy;
  set?: string;
  poll?: string;
};

export type Assign = {
  student: string;
  group: number;
};

export type SetTimer = {
  seconds?: number;
  more?: number;
  sound?: boolean;
  light?: boolean;
  look?: boolean;
};

export type Lock = {
  frame?: string;
  student?: string;
  on: boolean;
  seconds?: number;
};

export type HoldWords = {
  languages: Array<string>;
  own: Array<string>;
};

export type HoldWork = {
  frame?: string;
  student?: string;
  on: boolean;
  words?: HoldWords;
};

export type Names = {
  off: boolean;
};

export type ToBoard = {
  student?: string;
  seconds?: number;
};

export type Pause = {
  on: boolean;
};

export type SetWalk = {
  frame?: string;
  stops: Array<string>;
  at?: number;
  own?: boolean;
  each?: number;
  replies?: boolean;
};

export type Door = {
  closed: boolean;
  shut?: boolean;
  entry?: Entry;
};

export type Admit = {
  knocks: Array<string>;
  yes: boolean;
};

export type SetSeat = {
  student: string;
  remove: boolean;
};

export type SetHome = {
  until: number;
  closes?: boolean;
  student?: string;
};

export type End = {
};

export type Command = (
  | { kind: "go"; go: Go }
  | { kind: "pace"; pace: SetPace }
  | { kind: "poll"; poll: SetPoll }
  | { kind: "ask"; ask: Ask }
  | { kind: "set"; set: TellSet }
  | { kind: "talk"; talk: SetTalk }
  | { kind: "bands"; bands: SetBands }
  | { kind: "lift"; lift: Lift }
  | { kind: "use"; use: Use }
  | { kind: "lay"; lay: Lay }
  | { kind: "reword"; reword: Reword }
  | { kind: "groups"; groups: SetGroups }
  | { kind: "assign"; assign: Assign }
  | { kind: "front"; front: Front }
  | { kind: "timer"; timer: SetTimer }
  | { kind: "lock"; lock: Lock }
  | { kind: "hold"; hold: HoldWork }
  | { kind: "names"; names: Names }
  | { kind: "board"; board: ToBoard }
  | { kind: "pause"; pause: Pause }
  | { kind: "walk"; walk: SetWalk }
  | { kind: "door"; door: Door }
  | { kind: "admit"; admit: Admit }
  | { kind: "seat"; seat: SetSeat }
  | { kind: "home"; home: SetHome }
  | { kind: "end"; end: End }
);

export type AskQuestion = {
  id: string;
  text: string;
};

export type AgreeQuestion = {
  question: string;
  yes: boolean;
};

export type Help = {
  yes: boolean;
};

export type Done = {
  frame: string;
  yes: boolean;
};

export type Tick = {
  question: string;
  yes: boolean;
};

export type HideQuestion = {
  question: string;
  yes: boolean;
};

export type Come = {
  student: string;
  been?: boolean;
};

export type Look = {
  student: string;
};

export type Pick = {
  without?: Array<string>;
  undo?: boolean;
};

export type Tell = {
  student: string;
  text: string;
  about?: string;
};

export type Heard = {
  until: number;
};

export type Hand = {
  in: boolean;
};

export type Word = (
  | { kind: "ask"; ask: AskQuestion }
  | { kind: "agree"; agree: AgreeQuestion }
  | { kind: "help"; help: Help }
  | { kind: "done"; done: Done }
  | { kind: "tick"; tick: Tick }
  | { kind: "hide"; hide: HideQuestion }
  | { kind: "come"; come: Come }
  | { kind: "let"; let: VoiceSettings }
  | { kind: "look"; look: Look }
  | { kind: "pick"; pick: Pick }
  | { kind: "tell"; tell: Tell }
  | { kind: "heard"; heard: Heard }
  | { kind: "hand"; hand: Hand }
);

export type SignIn = {
  email: string;
  password: string;
  code?: string;
};

export type InvitationToken = {
  token: string;
};

export type StaffRole = "administrator" | "teacher" | "guest";

export type Invited = {
  role: StaffRole;
  email: string;
  name?: string;
  newPassword?: boolean;
};

export type Accept = {
  token: string;
  name: string;
  email: string;
  password: string;
};

export type StaffPerson = {
  id: string;
  name: string;
  email: string;
  role: StaffRole;
  left?: boolean;
  me?: boolean;
  second?: boolean;
};

export type InvitedItem = {
  id: string;
  email: string;
  role: StaffRole;
  expires: string;
  mailed?: boolean;
  sent?: boolean;
  problem?: string;
  again?: string;
};

export type Staff = {
  people: Array<StaffPerson>;
  invitations: Array<InvitedItem>;
};

export type Invite = {
  email: string;
  role: StaffRole;
};

export type InviteLink = {
  link: string;
  expires: string;
  mailed?: string;
};

export type SetStanding = {
  role?: StaffRole;
  left?: boolean;
};

export type SignedIn = {
  id: string;
  device: string;
  madeAt: string;
  here?: boolean;
};

export type Account = {
  name: string;
  email: string;
  role: StaffRole;
  signIns: Array<SignedIn>;
  second?: boolean;
  recoveryLeft?: number;
};

export type SetAccount = {
  name: string;
};

export type SetPassword = {
  now: string;
  next: string;
};

export type Region = "" | "en-GB" | "en-US" | "de-DE" | "de-AT" | "de-CH" | "sv-SE";

export type OwnSettings = {
  language: Language;
  classLanguage: Language;
  region: Region;
  pace: Pace;
  listed: boolean;
  named: boolean;
  questions: VoiceSettings;
  words?: HoldWords;
  bands: AdviceBands;
  sound: boolean;
  darkFront: boolean;
  calm: boolean;
};

export type LevelSign = "seed" | "sprout" | "leaf" | "flower" | "tree" | "peak";

export type Level = {
  name: string;
  tint: Tint;
  sign: LevelSign;
  points?: number;
};

export type TeacherMe = {
  name: string;
  role: StaffRole;
  held?: boolean;
  goesAt?: string;
  settings: OwnSettings;
  scale: Array<Level>;
};

export type Seat = {
  session: string;
  name: string;
  title: string;
  ended?: boolean;
  language: Language;
};

export type HouseMe = {
  school: string;
  guests: boolean;
  mail: boolean;
  mailbox?: boolean;
};

export type Me = {
  teacher?: TeacherMe;
  seat?: Seat;
  house: HouseMe;
};

export type NewSecond = {
  secret: string;
  address: string;
  qr: string;
  units: number;
};

export type SetSecond = {
  now: string;
  secret?: string;
  code: string;
};

export type Recovery = {
  codes: Array<string>;
};

export type ResetPassword = {
  email: string;
};

export type HandOver = {
  to: string;
};

export type Did = "invited" | "withdrew" | "accepted" | "role" | "left" | "came-back" | "password-link" | "password" | "second-on" | "second-off" | "handed-over" | "house" | "class-made" | "class-changed" | "teachers" | "student-changed" | "student-moved" | "students-merged" | "cards" | "card-stopped" | "register" | "exported" | "erased" | "kept-for" | "record-went" | "account-erased";

export type JournalEntry = {
  id: number;
  at: string;
  by: string;
  what: Did;
  about?: string;
  detail?: string;
};

export type Journal = {
  entries: Array<JournalEntry>;
};

export type HouseSettings = {
  school: string;
  secondFactor: boolean;
  guests: boolean;
  keepMonths: number;
  scale: Array<Level>;
  hosts?: Array<string>;
};

export type HouseReply = {
  house: HouseSettings;
  signs: Array<LevelSign>;
};

export type Letter = {
  to: string;
  subject: string;
  body: string;
  at: string;
};

export type Mails = {
  letters: Array<Letter>;
};

export type ClassStudent = {
  id: string;
  name: string;
  apart?: string;
  left?: boolean;
};

export type Colleague = {
  id: string;
  name: string;
};

export type ClassGroups = {
  id: string;
  name: string;
  groups: Array<Array<string>>;
};

export type ClassSeats = {
  rows: number;
  columns: number;
  at: Array<string>;
};

export type ClassPlan = {
  sets: Array<ClassGroups>;
  apart: Array<[string, string]>;
  seats: ClassSeats;
};

export type ClassPage = {
  id: string;
  name: string;
  archived?: boolean;
  students: Array<ClassStudent>;
  teachers: Array<Colleague>;
  plan: ClassPlan;
  keep?: number;
};

export type ClassBook = {
  classes: Array<ClassPage>;
  colleagues: Array<Colleague>;
};

export type NameColumns = {
  given: number;
  family: number;
  headed?: boolean;
};

export type NameList = {
  class?: string;
  list: string;
  columns?: NameColumns;
};

export type NameRow = {
  line: number;
  name: string;
  twice?: boolean;
  problem?: Code;
};

export type NameRows = {
  rows: Array<NameRow>;
  columns: NameColumns;
  head: Array<Array<string>>;
};

export type ListText = {
  list: string;
};

export type NewClass = {
  name: string;
  list: string;
  columns?: NameColumns;
};

export type ClassMade = {
  class: string;
};

export type SetClass = {
  name?: string;
  archived?: boolean;
};

export type SetStudent = {
  name?: string;
  left?: boolean;
};

export type NextYear = {
  name: string;
};

export type TeachTogether = {
  teacher: string;
  teaches: boolean;
};

export type MoveStudent = {
  to: string;
};

export type MergeStudents = {
  with: string;
};

export type NameCard = {
  student: string;
  name: string;
  code: string;
  qr: string;
  units: number;
};

export type Cards = {
  class: string;
  cards: Array<NameCard>;
};

export type RegisterItem = {
  id: string;
  name: string;
  students: number;
  there?: boolean;
};

export type RegisterProblem = {
  file: string;
  row: number;
  why: string;
};

export type RegisterLook = {
  classes: Array<RegisterItem>;
  problems: Array<RegisterProblem>;
};

export type SetKeep = {
  months?: number;
};

export type Receipt = {
  at: string;
  classes: number;
  lessons: number;
  marks: number;
  changes: number;
  pictures: number;
  mentions: number;
  card?: boolean;
};

export type AccountReceipt = {
  at: string;
  boards: number;
  lessons: number;
  templates: number;
  signIns: number;
};

export type PersonItem = {
  id: string;
  name: string;
  classes: Array<string>;
};

export type Persons = {
  persons: Array<PersonItem>;
};

export type ByCard = {
  card: string;
  session?: string;
};

export type CardLesson = {
  session: string;
  title: string;
};

export type CameIn = {
  seat?: Seat;
  lessons?: Array<CardLesson>;
};

export type TieStudent = {
  student: string;
};

export type RenamePerson = {
  name: string;
};

export type LikelyStudents = {
  likely: Array<Listed>;
  others: Array<Listed>;
};

export type BoardItem = {
  id: string;
  title: string;
  frames: number;
  folder: string;
  changedAt: string;
  openedAt?: string;
  archived?: boolean;
  first: Frame;
};

export type ClassItem = {
  id: string;
  name: string;
  students: number;
};

export type SessionItem = {
  id: string;
  title: string;
  className: string;
  students: number;
  startedAt: string;
  endedAt?: string;
  practice?: boolean;
  leftOpen?: boolean;
  due?: number;
  by?: string;
  class?: string;
  away?: boolean;
  goesAt?: string;
};

export type Boards = {
  boards: Array<BoardItem>;
  classes: Array<ClassItem>;
  sessions: Array<SessionItem>;
};

export type StartSession = {
  class: string;
  listed?: boolean;
  nameless?: boolean;
  pace: Pace;
};

export type Started = {
  session: string;
};

export type Invitation = {
  code: string;
  link: string;
};

export type JoinCode = {
  code: string;
};

export type JoinFound = {
  title: string;
  className: string;
  language: Language;
  names?: Array<string>;
};

export type AtDoor = {
  waiting?: boolean;
  seat?: Seat;
};

export type FrontStands = {
  code?: string;
  session?: string;
};

export type What = "new" | "gone" | "words" | "use" | "layout" | "settings" | "marks" | "order";

export type Difference = {
  what: What;
  frame?: string;
  title?: string;
};

export type Differences = {
  board: string;
  differences: Array<Difference>;
};

export type FrontCode = {
  code: string;
};

export type Join = {
  code: string;
  name: string;
};

export type Student = {
  id: string;
  name: string;
};

export type FirstTry = {
  text: string;
} & Judgement;

export type Answered = {
  poll: string;
  round: number;
  value: AnswerValue;
  text: string;
  sure?: Sureness;
  late?: boolean;
  offline?: boolean;
  at: number;
  tries?: number;
  first?: FirstTry;
} & Judgement;

export type OnFrame = {
  frame: string;
  marks: Array<Element>;
  answers: Array<Answered>;
  handed?: number;
};

export type Kept = {
  frames: Array<OnFrame>;
} & Student;

export type Tally = {
  frame: string;
  poll: string;
  round: number;
} & AnswerTally;

export type Record = {
  board: Board;
  students: Array<Kept>;
  tallies: Array<Tally>;
};

export type RecordReply = {
  session: SessionItem;
  record: Record;
  tied: { [key: string]: string };
  days?: Array<Day>;
};

export type FrameRecord = {
  students: Array<Kept>;
};

export type JudgedPiece = {
  student: string;
  frame?: string;
  mark?: string;
  criterion?: string;
};

export type JudgedLevel = {
  at: number;
  scale: Array<Level>;
  by?: Criterion;
};

export type CommentSaid = {
  comment?: string;
  ink?: Array<Element>;
  voice?: string;
};

export type WorkJudged = {
  by: string;
  level?: JudgedLevel;
  at: number;
} & JudgedPiece & CommentSaid;

export type Agreed = {
  kappa: number;
  span: Interval;
};

export type Strength = "none" | "slight" | "fair" | "moderate" | "substantial" | "perfect";

export type Differing = {
  one: number;
  other: number;
} & JudgedPiece;

export type Agreement = {
  one: string;
  other: string;
  of: number;
  same: number;
  scale: Array<Level>;
  table: Array<Array<number>>;
  plain?: Agreed;
  weighted?: Agreed;
  words?: Strength;
  apart: Array<Differing>;
};

export type Judgements = {
  scale: Array<Level>;
  judged: Array<WorkJudged>;
  names: { [key: string]: string };
  me: string;
  owner: string;
  blind: boolean;
  given: { [key: string]: number };
  phrases: Array<string>;
  agreements: Array<Agreement>;
};

export type SayJudged = {
  level?: number;
  keeps?: boolean;
  comment?: string;
  ink?: Array<Element>;
  voice?: string;
} & JudgedPiece;

export type JudgedNow = {
  judged?: WorkJudged;
};

export type SetBlind = {
  blind: boolean;
};

export type SetCriteria = {
  frame?: string;
  criteria: Array<Criterion>;
};

export type GiveBack = {
  students: Array<string>;
  undo?: boolean;
};

export type BackWord = {
  level?: JudgedLevel;
  grid?: Array<JudgedLevel>;
} & CommentSaid;

export type BackAnswer = {
  mark: string;
  poll: string;
  round: number;
  value: AnswerValue;
  asked: string;
  text: string;
  verdict?: Verdict;
  reason?: Reason;
  late?: boolean;
  right?: string;
  why?: string;
};

export type BackFrame = {
  n: number;
  frame: Frame;
  marks: Array<Element>;
  answers: Array<BackAnswer>;
  judged?: BackWord;
  marked?: { [key: string]: BackWord };
};

export type Back = {
  title: string;
  name: string;
  at: number;
  whole?: BackWord;
  frames: Array<BackFrame>;
  language: Language;
};

export type GivenLesson = {
  session: string;
  title: string;
  at: string;
};

export type GivenLessons = {
  lessons: Array<GivenLesson>;
};

export type Letters = {
  letters: Array<Back>;
};

export type Still = {
  id: string;
  name: string;
  at: number;
};

export type Stills = {
  stills: Array<Still>;
};

export type KeepStill = {
  name: string;
};

export type Between = {
  new: Array<string>;
  gone: Array<string>;
  changed: Array<string>;
};

export type SheetThen = {
  owner: string;
  before: Array<Element>;
  after: Array<Element>;
  between: Between;
};

export type TwoMoments = {
  sheets: Array<SheetThen>;
  more: boolean;
};

export type TakeOutWhat = "board" | "sheets" | "students" | "notes";

export type OutputForm = "pdf" | "png" | "svg" | "inkml" | "photos" | "csv" | "markdown" | "opml";

export type PageSize = "a4" | "a3" | "letter";

export type Wish = {
  what: TakeOutWhat;
  form: OutputForm;
  frames?: Array<string>;
  students?: Array<string>;
  names?: boolean;
  judged?: boolean;
  asClass?: boolean;
  paper?: PageSize;
  perPage?: number;
  width?: number;
};

export type Making = {
  id: string;
  done: number;
  all: number;
  ready?: boolean;
  failed?: Code;
};

export type Resume = {
  until?: number;
  closes?: boolean;
};

export type ReportFrame = {
  n: number;
  id: string;
  title: string;
  worked: number;
};

export type WrongAnswer = {
  text: string;
  mistake?: boolean;
  count: number;
  upper: number;
  middle: number;
  lower: number;
};

export type ReportQuestion = {
  n: number;
  frame: string;
  poll: string;
  text: string;
  advice?: Advised;
  wrong: Array<WrongAnswer>;
};

export type Item = {
  difficulty: number;
  upper: number;
  lower: number;
  discrimination: number;
  total?: number;
  rest?: number;
  restSpan?: Interval;
  without?: number;
};

export type ItemSet = {
  items: Array<Item>;
  alpha?: number;
  alphaSpan?: Interval;
  error?: number;
};

export type ByObjective = {
  id: string;
  text: string;
  questions: number;
  answers: number;
  mean: number;
};

export type SoughtWhy = "nothing" | "lost";

export type Sought = {
  why: SoughtWhy;
  right: number;
  of: number;
} & Student;

export type ReportStudent = {
  frames: number;
  answered: number;
  right: number;
  share: number;
  span: Interval;
} & Student;

export type Report = {
  title: string;
  class?: string;
  began: number;
  ended?: number;
  listed?: number;
  here: number;
  frames: Array<ReportFrame>;
  questions: Array<ReportQuestion>;
  set?: ItemSet;
  mistakes: Array<Named>;
  objectives: Array<ByObjective>;
  sought: Array<Sought>;
  students: Array<ReportStudent>;
};

export type Again = {
  frame: string;
  poll: string;
  text: string;
  advice: Advised;
  wrong: Array<WrongAnswer>;
};

export type LessonReport = {
  report: Report;
  again: Array<Again>;
  unfinished: Array<string>;
};

export type LookLink = {
  word: string;
  link: string;
  at: string;
  wish: Wish;
};

export type LookLinks = {
  looks: Array<LookLink>;
  hosts: Array<string>;
};

export type Looked = {
  title: string;
  pictures: Array<string>;
};

export type EvidenceKind = "answer" | "level";

export type Piece = {
  at: number;
  share: number;
  session: string;
  kind: EvidenceKind;
};

export type Condensed = {
  mean: number;
  spread: number;
  worth: number;
};

export type ObjectiveKnown = {
  text: string;
  pieces: Array<Piece>;
} & Condensed;

export type StudentProgress = {
  objectives: Array<ObjectiveKnown>;
} & Student;

export type FailedIn = {
  session: string;
  title: string;
  at: number;
  advice: Advised;
};

export type Failed = {
  text: string;
  lessons: Array<FailedIn>;
};

export type ClassYear = {
  lessons: number;
  students: Array<StudentProgress>;
  failed: Array<Failed>;
};

export type StudentLesson = {
  session: string;
  title: string;
  at: number;
  there: boolean;
  frames: number;
  of: number;
  right: number;
  answered: number;
  span: Interval;
  level?: JudgedLevel;
  comment?: string;
  words?: Array<string>;
};

export type RightOfAnswers = {
  right: number;
  answered: number;
};

export type StudentChange = {
  before: RightOfAnswers;
  after: RightOfAnswers;
  difference: Interval;
  sure?: boolean;
};

export type StudentYear = {
  lessons: Array<StudentLesson>;
  objectives: Array<ObjectiveKnown>;
  change?: StudentChange;
} & Student;

export type NextWish = {
  title: string;
  polls: Array<string>;
  frames: Array<string>;
  additions?: boolean;
};

export type HomeworkStand = "not-begun" | "at-work" | "handed-in" | "handed-late" | "not-handed" | "missing";

export type HomeworkStands = {
  student: string;
  name: string;
  stand: HomeworkStand;
  frames: number;
  handed?: number;
  due: number;
};

export type HomeworkOf = {
  home?: Homework;
  students: Array<HomeworkStands>;
  counts: { [key: string]: number };
};

export type Covered = {
  id: string;
  title: string;
};

export type Cell = {
  marks?: number;
  notes?: number;
  words?: number;
  ink?: number;
  pieces?: number;
  answers?: number;
  right?: number;
  wrong?: number;
  done?: boolean;
};

export type CoveredBy = {
  cells: Array<Cell>;
} & Student;

export type Evenness = "nobody" | "even" | "uneven" | "few";

export type TakingPart = {
  is: Evenness;
  gini: number;
  total: number;
  half: number;
  of: number;
  silent: number;
};

export type Coverage = {
  frames: Array<Covered>;
  students: Array<CoveredBy>;
  spoken: TakingPart;
};

export type FrameLine = {
  frame: string;
  cells: Array<number>;
};

export type SpanKind = "led" | "own" | "paused";

export type Span = {
  kind: SpanKind;
  frame?: string;
  from: number;
  to: number;
};

export type Deed = {
  frame: string;
  owner: string;
  hidden?: number;
  held?: number;
  removed?: number;
  shown?: number;
  changed?: number;
  authors: Array<string>;
};

export type LineEvent = {
  at: number;
  by?: string;
  command?: Command;
  deed?: Deed;
};

export type TimeLine = {
  from: number;
  to: number;
  step: number;
  frames: Array<FrameLine>;
  spans: Array<Span>;
  events: Array<LineEvent>;
};

export type QuestionKept = {
  frame: string;
  poll: string;
  text: string;
  right: number;
  answered: number;
  mean: number;
  span: Interval;
  wrong: Array<WrongAnswer>;
};

export type Row = {
  shares: Array<number>;
} & Student;

export type Questions = {
  questions: Array<QuestionKept>;
  all: number;
  set?: ItemSet;
  students: Array<Row>;
  mistakes: Array<Named>;
  objectives: Array<ByObjective>;
};

export type RightOf = {
  right: number;
  answered: number;
  span: Interval;
};

export type MistakeCompared = {
  name: string;
  here: number;
  there: number;
};

export type QuestionCompared = {
  text: string;
  here: RightOf;
  there: RightOf;
  difference?: Interval;
  by: number;
  sure?: boolean;
  mistakes: Array<MistakeCompared>;
};

export type Compared = {
  questions: Array<QuestionCompared>;
  only: number;
  onlyOther: number;
};

export type MistakenIn = {
  session: string;
  title: string;
  at: number;
  count: number;
  of: number;
};

export type Mistaken = {
  name: string;
  count: number;
  lessons: Array<MistakenIn>;
};

export type MistakesOver = {
  lessons: number;
  mistakes: Array<Mistaken>;
};

export type AlikeGroup = {
  name: string;
  texts: Array<string>;
  likeness: number;
  unsure?: boolean;
};

export type Band = {
  from: number;
  to: number;
  texts: Array<string>;
};

export type AlikeNote = {
  id: string;
  author: string;
  text: string;
  tint: Tint;
  column?: string;
};

export type Alike = {
  groups: Array<AlikeGroup>;
  agreed: Array<Band>;
  times: Array<Band>;
  notes: Array<AlikeNote>;
};

export type Varied = {
  owners: Array<string>;
};

export type TryQuestion = {
  asked: Question;
  value?: AnswerValue;
};

export type QuestionTried = {
  seen: Question;
  refused?: Code;
  judged?: Judgement;
  says?: string;
};

export type Loss = "kind" | "sure" | "mistakes" | "time" | "unit" | "slips" | "picture" | "objectives" | "ends" | "instead" | "right" | "near" | "markup" | "media";

export type QuestionLoss = {
  at: number;
  text: string;
  lost: Array<Loss>;
};

export type QuestionFile = {
  questions: number;
  lost: Array<QuestionLoss>;
};

export type Recorded = {
  sound: string;
  seconds: number;
};

export type Uploaded = {
  picture: string;
  width: number;
  height: number;
};

export type Dropped = {
  frame: string;
  at: number;
};

export type Outline = {
  title: string;
  objectives: Array<Objective>;
  criteria?: Array<Criterion>;
  frames: Array<string>;
  dropped: Array<Dropped>;
};

export type BoardReply = {
  id: string;
  rev: number;
  lesson?: boolean;
  outline: Outline;
  frames: Array<Frame>;
};

export type FoundFrame = {
  board: string;
  frame: string;
  title: string;
  number: number;
};

export type FoundSaid = {
  session: string;
  lesson: string;
  class: string;
  at: string;
  frame: string;
  author: string;
  name: string;
  words: string;
};

export type Found = {
  frames: Array<FoundFrame>;
  said: Array<FoundSaid>;
  lessons: Array<SessionItem>;
};

export type NewBoard = {
  title: string;
};

export type BoardMade = {
  board: string;
};

export type SetCard = {
  folder?: string;
  archived?: boolean;
  deleted?: boolean;
};

export type Shared = {
  link: string;
};

export type SharedBoard = {
  title: string;
  frames: number;
  first: Frame;
};

export type Edits = {
  since: number;
  edits: Array<unknown>;
};

export type FrameList = {
  frames: Array<string>;
};

export type AsSet = {
  as?: QuestionSet;
};

export type SetFrame = {
  frame: string;
  title?: string;
  prompt?: string;
  paper?: Paper;
  arrangement?: Arrangement;
  permission?: Permission;
  replies?: boolean;
  layout?: Layout;
  notes?: string;
  seconds?: number;
  objectives?: Array<string>;
  criteria?: Array<Criterion>;
  set?: AsSet;
};

export type SetBoard = {
  title?: string;
  objectives?: Array<Objective>;
  criteria?: Array<Criterion>;
};

export type MarksStep = {
  frame: string;
  step: Step;
};

export type BoardStep = (
  | { kind: "drop"; drop: FrameList }
  | { kind: "bring"; bring: FrameList }
  | { kind: "order"; order: FrameList }
  | { kind: "frame"; frame: SetFrame }
  | { kind: "board"; board: SetBoard }
  | { kind: "marks"; marks: MarksStep }
);

export type EditResult = {
  rev?: number;
  back?: BoardStep;
  problem?: Problem;
};

export type ChangedMarks = {
  frame: string;
  put: Array<Element>;
};

export type Changed = {
  rev: number;
  op: string;
  outline?: Outline;
  whole?: Array<Frame>;
  setting?: Frame;
  marks?: ChangedMarks;
};

export type EditsReply = {
  results: Array<EditResult>;
  changes: Array<Changed>;
};

export type Blank = {
};

export type SomeFrames = {
  frames: Array<string>;
};

export type FromTemplate = {
  template: string;
};

export type FromBoard = {
  board: string;
  frames: Array<string>;
};

export type FromIntake = {
  intake: string;
  pages: Array<number>;
  row?: boolean;
};

export type NewQuestion = {
  asked: Question;
};

export type FrameSource = (
  | { kind: "blank"; blank: Blank }
  | { kind: "double"; double: SomeFrames }
  | { kind: "template"; template: FromTemplate }
  | { kind: "board"; board: FromBoard }
  | { kind: "intake"; intake: FromIntake }
  | { kind: "question"; question: NewQuestion }
);

export type AddFrames = {
  id: string;
  since: number;
  at: number;
  from: FrameSource;
};

export type IntakeState = "reading" | "done" | "failed";

export type IntakePage = {
  frame?: Frame;
  left?: Array<string>;
  problem?: Code;
  at?: number;
};

export type Intake = {
  id: string;
  name: string;
  kind: string;
  state: IntakeState;
  done: number;
  of: number;
  more?: number;
  title?: string;
  pages: Array<IntakePage>;
  problem?: Code;
};

export type Rehearse = {
  students: number;
};

export type Rehearsing = {
  paused: boolean;
};

export type TakeIllustration = {
  id: string;
};

export type TemplateGroup = "think" | "arrange" | "measure" | "check";

export type Template = {
  id: string;
  name: string;
  group: TemplateGroup;
  frame: Frame;
};

export type OwnTemplate = {
  id: string;
  name: string;
  frame: Frame;
};

export type Templates = {
  ready: Array<Template>;
  own: Array<OwnTemplate>;
};

export type NewTemplate = {
  frame: string;
  name: string;
};

export type LibraryItem = {
  id: string;
  name: string;
  width: number;
  height: number;
};

export type Library = {
  pictures: Array<LibraryItem>;
  found: Array<LibraryItem>;
};

export type BoardEdit = {
  id: string;
  back?: boolean;
} & BoardStep;

export type Weight = "fine" | "base" | "guide" | "firm" | "dots";

export type Line = {
  weight: Weight;
  path: string;
};

export type LabelAnchor = "start" | "middle" | "end";

export type Label = {
  x: number;
  y: number;
  size: number;
  text: string;
  anchor: LabelAnchor;
};

export type Drawing = {
  lines: Array<Line>;
  labels: Array<Label>;
};
