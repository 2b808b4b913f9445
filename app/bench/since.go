package bench

import (
	"context"
	"crypto/rand"
	"errors"
	"maps"
	"reflect"
	"slices"
	"strings"

	lru "github.com/hashicorp/golang-lru/v2"

	"frugalheron/app/action"
	"frugalheron/core/exterior"
	"frugalheron/core/reckoning"
	"frugalheron/core/sheet"
	"frugalheron/core/splice"
	"frugalheron/core/verdict"
)

// ErrAnswerGone says that the answer before is not at hand any more: the whole has to be asked for again.
var ErrAnswerGone = errors.New("the reckoning before this one is not at hand any more; ask for the whole again")

// mostAnswers and largestSheets bound what is kept of answers: so many, of so many bytes of sheets each.
const (
	mostAnswers   = 48
	largestSheets = 256 << 10
)

// answered is an answer that somebody got, and the drafts that it speaks of.
type answered struct {
	account   int64
	machine   int64 // 0 for an assembly on its own
	assembly  int64
	drafts    map[int64]string
	reckoning ReckonedMachine
}

// answers keeps the last answers, so that the next ones need only tell what changed.
type answers struct{ kept *lru.Cache[string, answered] }

func newAnswers() answers {
	kept, err := lru.New[string, answered](mostAnswers)
	if err != nil {
		panic(err) // only of a size below one
	}
	return answers{kept}
}

// keep returns the name under which an answer can be gone on from; empty where it is too large to be kept.
func (a answers) keep(one answered) string {
	size := 0
	for _, board := range one.reckoning.Boards {
		size += len(board.body)
	}
	if size > largestSheets {
		return ""
	}
	// What nothing is told of need not be kept. The boards themselves are shared with other answers.
	one.reckoning.Boards = slices.Clone(one.reckoning.Boards)
	for i := range one.reckoning.Boards {
		one.reckoning.Boards[i].Entries = nil
	}
	name := rand.Text()
	a.kept.Add(name, one)
	return name
}

// LineChange is a change of some lines of a sheet that stood in an editor at the answer before.
type LineChange struct {
	AssemblyID int64    `json:"assemblyId"`
	From       int      `json:"from" minimum:"1" doc:"The first line that is another now"`
	Gone       int      `json:"gone" minimum:"0" doc:"So many lines from there are gone"`
	Lines      []string `json:"lines" maxItems:"20000" doc:"What stands there instead"`
}

// Since is what is asked for after an answer: what changed in the editors since then.
type Since struct {
	Answer  string           // the name of the answer before
	Drafts  map[int64]string // whole, of sheets that were none then: what is kept may have been changed by others
	Changes []LineChange     // in sheets that were drafts then
	Kept    []int64          // assemblies in whose editor stands again what is kept
}

// ReckonedSince is what is another than in the answer before.
type ReckonedSince struct {
	Answer   string          `json:"answer" doc:"The name of this answer; empty where the whole has to be asked for next"`
	Stage    reckoning.Stage `json:"stage"`
	Walk     []exterior.Step `json:"walk"`
	Left     []string        `json:"left"`
	Order    []string        `json:"order" doc:"The keys of all verdicts, in their order"`
	Verdicts []VerdictSince  `json:"verdicts" doc:"Those that are new or another"`
	Boards   []BoardSince    `json:"boards"`
}

// VerdictSince is a verdict that is new or another; its reasons are told by what changed in those of the same key.
type VerdictSince struct {
	Verdict verdict.Verdict               `json:"verdict" doc:"Without its reasons"`
	Why     splice.Splice[verdict.Reason] `json:"why"`
}

// BoardSince is what is another on a board. First all lines of the answer before that stand after a line are counted on,
// wherever they are named; then the rows of some lines are others.
type BoardSince struct {
	AssemblyID int64                     `json:"assemblyId"`
	After      int                       `json:"after" doc:"Lines after this one are others now"`
	By         int                       `json:"by" doc:"by so many"`
	Totals     reckoning.Totals          `json:"totals"`
	Records    RowsSince[sheet.Record]   `json:"records"`
	Lines      RowsSince[reckoning.Line] `json:"lines"`
}

// RowsSince is what is another in rows that each speak of a line.
type RowsSince[Row any] struct {
	Gone []int `json:"gone" doc:"Lines of which nothing is told any more"`
	Put  []Row `json:"put" doc:"In place of all that was told of their lines, in the order of lines"`
}

func rowsSince[Row comparable](before, now []Row, lineOf func(Row) int) RowsSince[Row] {
	was, is := byLine(before, lineOf), byLine(now, lineOf)
	out := RowsSince[Row]{Gone: []int{}, Put: []Row{}}
	for line := range was {
		if is[line] == nil {
			out.Gone = append(out.Gone, line)
		}
	}
	slices.Sort(out.Gone)
	for _, row := range now {
		if line := lineOf(row); !slices.Equal(was[line], is[line]) {
			out.Put = append(out.Put, row)
		}
	}
	return out
}

func byLine[Row any](rows []Row, lineOf func(Row) int) map[int][]Row {
	of := make(map[int][]Row, len(rows))
	for _, row := range rows {
		of[lineOf(row)] = append(of[lineOf(row)], row)
	}
	return of
}

// ReckonMachineSince reckons a machine with what changed in its editors after an answer, and tells what is another than
// in that. ErrAnswerGone where the answer is not at hand.
func (s *Service) ReckonMachineSince(ctx context.Context, actor action.Actor, machineID int64,
	since Since) (ReckonedSince, error) {
	return s.reckonSince(actor, answered{machine: machineID}, since,
		func(drafts map[int64]string) (ReckonedMachine, error) {
			return s.ReckonMachine(ctx, actor, machineID, drafts)
		})
}

// ReckonAssemblySince does so for an assembly on its own.
func (s *Service) ReckonAssemblySince(ctx context.Context, actor action.Actor, id int64,
	since Since) (ReckonedSince, error) {
	return s.reckonSince(actor, answered{assembly: id}, since,
		func(drafts map[int64]string) (ReckonedMachine, error) {
			return s.ReckonAssembly(ctx, actor, id, drafts)
		})
}

func (s *Service) reckonSince(actor action.Actor, of answered, since Since,
	reckon func(map[int64]string) (ReckonedMachine, error)) (ReckonedSince, error) {
	before, ok := s.answers.kept.Get(since.Answer)
	if !ok || before.account != actor.AccountID || before.machine != of.machine || before.assembly != of.assembly {
		return ReckonedSince{}, ErrAnswerGone
	}
	drafts, err := before.with(since)
	if err != nil {
		return ReckonedSince{}, err
	}
	now, err := reckon(drafts)
	if err != nil {
		return ReckonedSince{}, err
	}
	out := between(before.reckoning, now)
	out.Answer = now.Answer
	return out, nil
}

// with returns the drafts with what changed.
func (a answered) with(since Since) (map[int64]string, error) {
	drafts := map[int64]string{}
	for id, body := range a.drafts {
		if !slices.Contains(since.Kept, id) {
			drafts[id] = body
		}
	}
	maps.Copy(drafts, since.Drafts)
	for _, change := range since.Changes {
		body, ok := a.drafts[change.AssemblyID]
		if !ok {
			return nil, ErrAnswerGone
		}
		lines := strings.Split(body, "\n")
		first := change.From - 1
		if first < 0 || change.Gone < 0 || first+change.Gone > len(lines) {
			return nil, ErrAnswerGone
		}
		drafts[change.AssemblyID] = strings.Join(
			slices.Concat(lines[:first], change.Lines, lines[first+change.Gone:]), "\n")
	}
	return drafts, nil
}

// between tells what is another than in the answer before.
func between(before, now ReckonedMachine) ReckonedSince {
	out := ReckonedSince{Stage: now.Stage, Walk: now.Walk, Left: now.Left, Order: []string{},
		Verdicts: []VerdictSince{}, Boards: []BoardSince{}}
	moved, boards := moves{}, map[int64]ReckonedBoard{}
	for _, board := range before.Boards {
		boards[board.AssemblyID] = board
	}
	for _, board := range now.Boards {
		old := boards[board.AssemblyID]
		by := moveOf(old.body, board.body)
		moved[board.AssemblyID] = by
		told := BoardSince{AssemblyID: board.AssemblyID, After: by.after, By: by.lines, Totals: board.Totals,
			Records: rowsSince(by.records(old.Records), board.Records, func(r sheet.Record) int { return r.Line }),
			Lines:   rowsSince(by.lineStates(old.Lines), board.Lines, func(l reckoning.Line) int { return l.Line }),
		}
		out.Boards = append(out.Boards, told)
	}
	old := map[string]verdict.Verdict{}
	for _, v := range before.Verdicts {
		v.Why = moved.reasons(v.Why)
		old[v.Key] = v
	}
	for _, v := range now.Verdicts {
		out.Order = append(out.Order, v.Key)
		was := old[v.Key]
		if reflect.DeepEqual(was, v) {
			continue
		}
		why := splice.Between(was.Why, v.Why, func(a, b verdict.Reason) bool { return reflect.DeepEqual(a, b) })
		v.Why = []verdict.Reason{}
		out.Verdicts = append(out.Verdicts, VerdictSince{v, why})
	}
	return out
}

// move counts lines on that stand after one of a sheet; moves are those of each assembly.
type (
	move  struct{ after, lines int }
	moves map[int64]move
)

func moveOf(older, later string) move {
	was, is := strings.Split(older, "\n"), strings.Split(later, "\n")
	between := splice.Between(was, is, func(a, b string) bool { return a == b })
	return move{after: len(was) - between.Tail, lines: len(is) - len(was)}
}

func (m move) line(line int) int {
	if line > m.after {
		return line + m.lines
	}
	return line
}

func (m move) records(records []sheet.Record) []sheet.Record {
	records = slices.Clone(records)
	for i := range records {
		records[i].Line = m.line(records[i].Line)
	}
	return records
}

func (m move) lineStates(lines []reckoning.Line) []reckoning.Line {
	lines = slices.Clone(lines)
	for i := range lines {
		lines[i].Line = m.line(lines[i].Line)
	}
	return lines
}

func (m moves) reasons(reasons []verdict.Reason) []verdict.Reason {
	reasons = slices.Clone(reasons)
	for i, reason := range reasons {
		if reason.Spot == nil {
			continue
		}
		spot := *reason.Spot
		spot.Line = m[spot.Assembly].line(spot.Line)
		reasons[i].Spot = &spot
	}
	return reasons
}
