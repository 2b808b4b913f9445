package app_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/app"
	appcondition "frugalheron/app/condition"
	"frugalheron/app/inventory"
	"frugalheron/core/condition"
)

// watchedPart is what somebody knows of a part who watched all that was done to it.
type watchedPart struct {
	words   string // that it is called by now; empty where nothing is
	marked  map[string]bool
	noted   map[string]bool // by people, until they say that it is gone
	low     bool            // its last reading was too low
	looked  bool            // since it is there, beside what is marked
	renewed bool
}

func (p *watchedPart) begin(words string) {
	*p = watchedPart{words: words, marked: map[string]bool{}, noted: map[string]bool{}, renewed: p.renewed}
}

// open lists what is wrong with it.
func (p *watchedPart) open() []string {
	kinds := []string{}
	for _, kind := range []string{"leaking", "corroded"} {
		if p.marked[kind] || p.noted[kind] {
			kinds = append(kinds, kind)
		}
	}
	if p.low {
		kinds = append(kinds, "low voltage")
	}
	return kinds
}

// Whatever is done in whatever order, the condition and the priorities are those that somebody would tell who watched.
func TestWhoWatchedWouldSayTheSame(t *testing.T) {
	fewChecks(t, 8)
	_, actions := newApp(t)
	n := 0
	rapid.Check(t, func(rt *rapid.T) {
		n++
		machine, err := actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{
			Accession: fmt.Sprintf("EH-%04d", n), Name: "Meridian", EraFrom: year(1985), EraTo: year(1988)})
		require.NoError(rt, err)
		boards, err := actions.Sheets.TakeOverSheet(ctx, technician, machine.ID,
			"== Main board\nBT1 NiCd 3.6V\nBT2 NiMH 3.6V\nU1 7400")
		require.NoError(rt, err)
		w := &watched{t: rt, actions: actions, machine: machine.ID, board: boards[0].ID,
			parts: map[string]*watchedPart{}}
		for _, d := range []string{"BT1", "BT2"} {
			w.parts[d] = &watchedPart{}
			w.parts[d].begin(map[string]string{"BT1": "NiCd 3.6V", "BT2": "NiMH 3.6V"}[d])
		}
		for range rapid.IntRange(1, 9).Draw(rt, "events") {
			w.event()
			w.compare()
		}
	})
}

type watched struct {
	t              *rapid.T
	actions        *app.App
	machine, board int64
	parts          map[string]*watchedPart
	isInStore      bool
}

// write saves the sheet as the parts are now.
func (w *watched) write() {
	lines := []string{}
	for _, d := range []string{"BT1", "BT2"} {
		p := w.parts[d]
		line := d + " " + p.words
		if p.words == "" {
			line = d + " @empty"
		}
		if p.renewed && p.words != "" {
			line += " new:" + technician.Today()
		}
		for _, kind := range []string{"leaking", "corroded"} {
			if p.marked[kind] {
				line += " !" + kind
			}
		}
		lines = append(lines, line)
	}
	now, err := w.actions.Sheets.Sheet(ctx, technician, w.board)
	require.NoError(w.t, err)
	_, err = w.actions.Sheets.SaveSheet(ctx, technician, w.board, now.N, strings.Join(append(lines, "U1 7400"), "\n"))
	require.NoError(w.t, err)
}

func (w *watched) note(designator, kind string, isGone bool) {
	known, err := w.actions.Condition.BoardCondition(ctx, technician, w.board)
	require.NoError(w.t, err)
	seen := appcondition.ObservedFinding{Severity: condition.Repair, Gone: isGone,
		New: &appcondition.FindingInput{Kind: kind, Designator: designator}}
	for _, f := range known.Findings {
		if isGone && f.Kind == kind && f.Designator == designator && f.Story.Open {
			seen.New, seen.FindingID, seen.Key = nil, f.ID, f.Key
		}
	}
	_, err = w.actions.Condition.NoteBoardFinding(ctx, technician, w.board,
		appcondition.NotedFinding{Subsystem: "batteries",
			ObservedFinding: seen})
	require.NoError(w.t, err)
}

// event lets something happen, and to the model as somebody would tell it.
func (w *watched) event() {
	d := rapid.SampledFrom([]string{"BT1", "BT2"}).Draw(w.t, "part")
	kind := rapid.SampledFrom([]string{"leaking", "corroded"}).Draw(w.t, "kind")
	p := w.parts[d]
	switch what := rapid.SampledFrom([]string{"mark", "erase", "note", "gone", "measure", "remove", "refit", "replace",
		"move"}).Draw(w.t, "what"); {
	case what == "mark" && p.words != "" && !p.marked[kind]:
		p.marked[kind] = true
		w.write()
	case what == "erase" && p.marked[kind]:
		p.marked[kind] = false // a slip of the pen, so that nobody looked; what somebody saw beside the sheet stays
		w.write()
	case what == "note" && p.words != "":
		w.note(d, kind, false)
		p.noted[kind], p.looked = true, true
	case what == "gone" && slices.Contains(p.open(), kind):
		w.note(d, kind, true)
		p.noted[kind], p.looked = false, true
		if p.marked[kind] { // who says that it is gone takes it off the sheet
			p.marked[kind] = false
			w.write()
		}
	case what == "measure" && p.words != "" && !w.isInStore:
		p.low, p.looked = rapid.Bool().Draw(w.t, "low"), true
		volts := map[bool]string{true: "1.2", false: "3.7"}[p.low]
		_, err := w.actions.Condition.Measure(ctx, technician, w.machine, appcondition.MeasurementInput{
			Line: d + " " + volts + " V = 3.6 V +/- 10 %", AssemblyID: &w.board})
		require.NoError(w.t, err)
	case what == "remove" && p.words != "":
		p.begin("")
		p.renewed = false
		w.write()
	case what == "refit" && p.words == "":
		p.begin(fmt.Sprintf("NiMH 3.6V lot %d", rapid.IntRange(1, 1e6).Draw(w.t, "lot")))
		w.write()
	case what == "replace" && p.words != "" && !p.renewed:
		p.begin(p.words)
		p.renewed = true
		w.write()
	case what == "move":
		now, err := w.actions.Inventory.Assembly(ctx, technician, w.board)
		require.NoError(w.t, err)
		move := inventory.Move{To: "place", Place: "Seed loft"}
		if w.isInStore {
			move = inventory.Move{To: "machine", MachineID: w.machine}
		}
		_, err = w.actions.Inventory.MoveAssembly(ctx, technician, w.board, now.Version, move)
		require.NoError(w.t, err)
		w.isInStore = !w.isInStore
	}
}

// compare lays what the records say beside what somebody would tell.
func (w *watched) compare() {
	known, err := w.actions.Condition.BoardCondition(ctx, viewer, w.board)
	require.NoError(w.t, err)
	said := map[string][]string{"BT1": {}, "BT2": {}}
	for _, f := range known.Findings {
		if f.Story.Open {
			said[f.Designator] = append(said[f.Designator], f.Kind)
		}
	}
	ranked := w.ranked()
	for d, p := range w.parts {
		require.ElementsMatch(w.t, p.open(), said[d], d)
		why := ""
		for _, r := range ranked {
			if r.Place == d {
				require.Equal(w.t, w.isInStore, r.Machine.ID == 0)
				why = r.Why
			}
		}
		switch {
		case p.words == "":
			require.Empty(w.t, why, d)
		case p.looked || p.marked["leaking"] || p.marked["corroded"]:
			require.Contains(w.t, why, "last looked at less than a month ago", d)
		case p.renewed:
			require.Contains(w.t, why, "put in new", d)
		default:
			require.Contains(w.t, why, "never looked at", d)
		}
	}
	whole, err := w.actions.Condition.Condition(ctx, viewer, w.machine)
	require.NoError(w.t, err)
	open := 0
	for _, f := range whole.Findings {
		if f.Story.Open {
			open++
		}
	}
	expected := len(w.parts["BT1"].open()) + len(w.parts["BT2"].open())
	if w.isInStore {
		expected = 0 // it went with its board
	}
	require.Equal(w.t, expected, open, whole.Findings)
}

// ranked lists what ages on the board: of its machine, or of the whole collection while it is in store.
func (w *watched) ranked() []appcondition.Risk {
	of, found := w.machine, []appcondition.Risk{}
	if w.isInStore {
		of = 0
	}
	for after := 0; ; {
		page, err := w.actions.Condition.Risks(ctx, viewer, of, after, 200)
		require.NoError(w.t, err)
		for _, r := range page.Risks {
			if r.AssemblyID == w.board {
				found = append(found, r)
			}
		}
		if after = page.Next; after == 0 {
			return found
		}
	}
}
