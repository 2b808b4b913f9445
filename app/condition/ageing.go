package condition

import (
	"context"
	"fmt"
	"strconv"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/core/condition"
	"frugalheron/core/edtf"
	"frugalheron/core/risk"
	storecondition "frugalheron/store/condition"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
)

// rulesApart keeps the rules of the house apart from the changes of the collection's classes, which count up, too.
const rulesApart = 1000

// tableIn is the table of classes by which the collection tells its parts, and the number of the rules that makes.
func tableIn(ctx context.Context, h pg.Handle) (risk.Table, int, error) {
	own, err := ownClasses(ctx, h)
	if err != nil {
		return nil, 0, err
	}
	classes, rules := []risk.Class{}, ageingRules*rulesApart
	for _, c := range own {
		classes = append(classes, c.Class)
		if !risk.IsShipped(c.Key) {
			rules += c.Version
		}
	}
	return risk.TableOf(classes), rules, nil
}

// ageingRules counts up whenever parts are told by other rules, so that what is kept is made anew.
const ageingRules = 5

// renewAgeing writes anew which parts of a machine age, and when somebody last looked at each. Equal parts of a board and
// year that were looked at on the same day are one row, with the first of their lines.
func renewAgeing(ctx context.Context, tx *sqlx.Tx, machineID int64) error {
	if err := storecondition.LockAgeing(ctx, tx, machineID); err != nil {
		return err
	}
	known, err := knownOf(ctx, tx, machineID)
	if err != nil {
		return err
	}
	looked, err := known.looks(ctx, tx, machineID, 0)
	if err != nil {
		return err
	}
	table, rules, err := tableIn(ctx, tx)
	if err != nil {
		return err
	}
	grouped := ageingParts(table, machineID, known.parts(), known.held, looked)
	kept := make([]string, len(grouped))
	for i, one := range grouped {
		kept[i] = packPart(one)
	}
	return storecondition.PutAgeing(ctx, tx, machineID, strings.Join(kept, "\n"), rules)
}

// renewBoardAgeing writes anew what ages on a board that is in no machine.
func renewBoardAgeing(ctx context.Context, tx *sqlx.Tx, assemblyID int64) error {
	assembly, err := inventory.LockAssembly(ctx, tx, assemblyID)
	if err != nil {
		return err
	}
	if assembly.MachineID != nil || assembly.IsVoided {
		return storecondition.DropBoardAgeing(ctx, tx, assemblyID)
	}
	known, err := knownOfBoard(ctx, tx, assemblyID)
	if err != nil {
		return err
	}
	looked, err := known.looks(ctx, tx, 0, assemblyID)
	if err != nil {
		return err
	}
	parts := []condition.Part{{AssemblyID: assemblyID, Board: assembly.Title, Place: assembly.Title,
		Tells: condition.Tells(condition.Words{Kind: "board", Marking: assembly.Title + " " + assembly.Kind})}}
	table, rules, err := tableIn(ctx, tx)
	if err != nil {
		return err
	}
	kept := []string{}
	for _, one := range ageingParts(table, asIfMachine(assemblyID), parts, known.held, looked) {
		kept = append(kept, packPart(one))
	}
	return storecondition.PutBoardAgeing(ctx, tx, assemblyID, strings.Join(kept, "\n"), rules)
}

// asIfMachine is the number under which a board that is in no machine is ranked beside the machines: theirs are positive.
func asIfMachine(assemblyID int64) int64 { return -assemblyID }

// isBoard reports whether a number stands for a board that is in no machine.
func isBoard(rankedAs int64) bool { return rankedAs < 0 }

// ageingParts are the parts that age among those that are held.
func ageingParts(table risk.Table, machineID int64, parts []condition.Part, rows []storecondition.HeldPart,
	looked condition.Looks) []risk.Part {
	grouped, order := map[string]*risk.Part{}, []string{}
	add := func(p risk.Part) {
		key := fmt.Sprintf("%s %d %d %d %d %d", p.Class, p.Assembly, p.Born, p.Renewed, p.CameIn, p.Looked)
		if grouped[key] == nil {
			grouped[key], order = &p, append(order, key)
			return
		}
		grouped[key].Count += p.Count
	}
	for _, p := range parts {
		class := table.ClassOf(p.Tells)
		if p.Line != 0 || class == "" {
			continue
		}
		// A board of its own, as a drive.
		add(risk.Part{Machine: machineID, Class: class, Count: 1, Assembly: p.AssemblyID, Born: risk.NoDay,
			Renewed: risk.NoDay, CameIn: risk.NoDay, Looked: dayOf(looked.At(class, p.AssemblyID, ""))})
	}
	for _, r := range rows {
		class := table.ClassOf(condition.Tells(wordsOf(r)))
		if class == "" {
			continue
		}
		p := risk.Part{Machine: machineID, Class: class, Assembly: r.AssemblyID, Line: r.Line, Born: risk.NoDay,
			Renewed: risk.NoDay, CameIn: risk.NoDay}
		if r.Made != nil {
			p.Born = dayOf((*r.Made)[:4] + "-07-01")
		}
		if r.New != nil {
			p.Renewed = sinceDay(*r.New)
		}
		designators := strings.Fields(r.Places)
		for _, designator := range designators {
			p.Count, p.CameIn = 1, sinceDay(looked.CameIn(r.AssemblyID, designator))
			p.Looked = dayOf(looked.At(class, r.AssemblyID, designator))
			add(p)
		}
		if rest := r.Count - len(designators); rest > 0 {
			p.Count, p.CameIn, p.Looked = rest, risk.NoDay, dayOf(looked.At(class, r.AssemblyID, ""))
			add(p)
		}
	}
	all := make([]risk.Part, len(order))
	for i, key := range order {
		all[i] = *grouped[key]
	}
	return all
}

// sinceDay is the day from which a part that was put in then is counted, the first that can be meant.
func sinceDay(text string) risk.Day {
	since, err := edtf.Parse(text)
	if err != nil {
		return risk.NoDay
	}
	day := since.Earliest()
	if day.IsZero() {
		day = since.Latest()
	}
	return dayOf(day.String())
}

// dayOf reads a day that was checked when it was kept.
func dayOf(day string) risk.Day {
	at, _ := risk.ParseDay(day)
	return at
}

// packPart writes a part as it is kept: class, count, board, line, and the days it was made, put in new, came in and was
// looked at.
func packPart(p risk.Part) string {
	day := func(d risk.Day) string {
		if d == risk.NoDay {
			return ""
		}
		return strconv.Itoa(int(d))
	}
	return fmt.Sprintf("%s,%d,%d,%d,%s,%s,%s,%s", p.Class, p.Count, p.Assembly, p.Line, day(p.Born), day(p.Renewed),
		day(p.CameIn), day(p.Looked))
}

// unpackParts reads the parts of a machine, and puts them behind those given. Written by packPart, they need
// no more checks than that they have all fields.
func unpackParts(all []risk.Part, machineID int64, kept string) []risk.Part {
	for kept != "" {
		var one string
		one, kept, _ = strings.Cut(kept, "\n")
		p := risk.Part{Machine: machineID, Born: risk.NoDay, Renewed: risk.NoDay, CameIn: risk.NoDay,
			Looked: risk.NoDay}
		var field string
		p.Class, one, _ = strings.Cut(one, ",")
		field, one, _ = strings.Cut(one, ",")
		p.Count = atoi(field)
		field, one, _ = strings.Cut(one, ",")
		p.Assembly = int64(atoi(field))
		field, one, _ = strings.Cut(one, ",")
		p.Line = atoi(field)
		field, one, _ = strings.Cut(one, ",")
		if field != "" {
			p.Born = risk.Day(atoi(field)) //nolint:gosec // a day, as packPart wrote it
		}
		field, one, _ = strings.Cut(one, ",")
		if field != "" {
			p.Renewed = risk.Day(atoi(field)) //nolint:gosec // a day, as packPart wrote it
		}
		field, one, _ = strings.Cut(one, ",")
		if field != "" {
			p.CameIn = risk.Day(atoi(field)) //nolint:gosec // a day, as packPart wrote it
		}
		if one != "" {
			p.Looked = risk.Day(atoi(one)) //nolint:gosec // a day, as packPart wrote it
		}
		all = append(all, p)
	}
	return all
}

func atoi(text string) int {
	n, _ := strconv.Atoi(text)
	return n
}

// ageingAtOnce is how many machines or boards are gone through before it is asked again which are left.
const ageingAtOnce = 200

// RenewAgeing makes anew what ages in machines, and on boards in none, of which it is not known yet, or was told by other
// rules.
func (s *Service) RenewAgeing(ctx context.Context) error {
	err := s.renewOldAgeing(ctx, storecondition.MachinesWithOldAgeing, func(ctx context.Context, tx *sqlx.Tx,
		id int64) error {
		if _, err := inventory.LockMachine(ctx, tx, id); err != nil {
			return err
		}
		return renewAgeing(ctx, tx, id)
	})
	if err != nil {
		return err
	}
	return s.renewOldAgeing(ctx, storecondition.BoardsWithOldAgeing, renewBoardAgeing)
}

func (s *Service) renewOldAgeing(ctx context.Context,
	old func(ctx context.Context, h pg.Handle, rules, limit int) ([]int64, error),
	renew func(ctx context.Context, tx *sqlx.Tx, id int64) error) error {
	for {
		_, rules, err := tableIn(ctx, s.kernel.Reader(ctx))
		if err != nil {
			return err
		}
		ids, err := old(ctx, s.kernel.Reader(ctx), rules, ageingAtOnce)
		if err != nil || len(ids) == 0 {
			return err
		}
		for _, id := range ids {
			if err := pg.InTx(ctx, s.kernel.DB, func(tx *sqlx.Tx) error { return renew(ctx, tx, id) }); err != nil {
				return err
			}
		}
	}
}
