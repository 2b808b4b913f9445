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

// ageingRules counts up whenever parts are told by other rules, so that what is kept is made anew.
const ageingRules = 3

// renewAgeing writes anew which parts of a machine age, and when somebody last looked at each kind. Equal parts
// of a board and year are one row, with the first of their lines.
func renewAgeing(ctx context.Context, tx *sqlx.Tx, machineID int64) error {
	if err := storecondition.LockAgeing(ctx, tx, machineID); err != nil {
		return err
	}
	parts, rows, err := heldParts(ctx, tx, machineID)
	if err != nil {
		return err
	}
	looked, err := lookedAt(ctx, tx, machineID)
	if err != nil {
		return err
	}
	grouped, order := map[string]*risk.Part{}, []string{}
	add := func(class string, assembly int64, line, count int, made, since *string) {
		if class == "" {
			return
		}
		year := ""
		if made != nil {
			year = (*made)[:4]
		}
		renewed := risk.NoDay
		if since != nil {
			renewed = sinceDay(*since)
		}
		key := fmt.Sprintf("%s %d %s %d", class, assembly, year, renewed)
		if grouped[key] == nil {
			p := risk.Part{Machine: machineID, Class: class, Assembly: assembly, Line: line, Born: risk.NoDay,
				Renewed: renewed, Looked: risk.NoDay}
			if year != "" {
				p.Born = dayOf(year + "-07-01")
			}
			if on, ok := looked[class]; ok {
				p.Looked = on
			}
			grouped[key] = &p
			order = append(order, key)
		}
		grouped[key].Count += count
	}
	for _, p := range parts {
		if p.Line == 0 { // a board of its own, as a drive
			add(risk.ClassOf(p.Tells), p.AssemblyID, 0, 1, nil, nil)
		}
	}
	for _, r := range rows {
		add(risk.ClassOf(condition.Tells(wordsOf(r))), r.AssemblyID, r.Line, r.Count, r.Made, r.New)
	}
	kept := make([]string, len(order))
	for i, key := range order {
		kept[i] = packPart(*grouped[key])
	}
	return storecondition.PutAgeing(ctx, tx, machineID, strings.Join(kept, "\n"), ageingRules)
}

// lookedAt says when a survey last looked at each ageing class.
func lookedAt(ctx context.Context, h pg.Handle, machineID int64) (map[string]risk.Day, error) {
	surveys, err := storecondition.SurveysOf(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	looked := map[string]risk.Day{}
	for _, row := range surveys {
		_, survey, err := tellSurvey(row)
		if err != nil {
			return nil, err
		}
		for key, look := range survey.Coverage {
			sub, _ := condition.SubsystemOf(key)
			for _, class := range sub.Classes {
				if look == condition.Inspected {
					looked[class] = max(looked[class], dayOf(row.On))
				}
			}
		}
	}
	return looked, nil
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

// packPart writes a part as it is kept: class, count, board, line, and the days it was made and looked at.
func packPart(p risk.Part) string {
	day := func(d risk.Day) string {
		if d == risk.NoDay {
			return ""
		}
		return strconv.Itoa(int(d))
	}
	return fmt.Sprintf("%s,%d,%d,%d,%s,%s,%s", p.Class, p.Count, p.Assembly, p.Line, day(p.Born), day(p.Renewed),
		day(p.Looked))
}

// unpackParts reads the parts of a machine, and puts them behind those given. Written by packPart, they need
// no more checks than that they have all fields.
func unpackParts(all []risk.Part, machineID int64, kept string) []risk.Part {
	for kept != "" {
		var one string
		one, kept, _ = strings.Cut(kept, "\n")
		p := risk.Part{Machine: machineID, Born: risk.NoDay, Renewed: risk.NoDay, Looked: risk.NoDay}
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

// RenewAgeing makes anew what ages in machines of which it is not known yet, or was told by other rules.
func (s *Service) RenewAgeing(ctx context.Context) error {
	const batch = 200
	for {
		ids, err := storecondition.MachinesWithOldAgeing(ctx, s.kernel.Reader(ctx), ageingRules, batch)
		if err != nil || len(ids) == 0 {
			return err
		}
		for _, id := range ids {
			err := pg.InTx(ctx, s.kernel.DB, func(tx *sqlx.Tx) error {
				if _, err := inventory.LockMachine(ctx, tx, id); err != nil {
					return err
				}
				return renewAgeing(ctx, tx, id)
			})
			if err != nil {
				return err
			}
		}
	}
}
