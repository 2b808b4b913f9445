package demo

import (
	"fmt"
	"slices"

	"frugalheron/app/parts"
	"frugalheron/app/work"
)

// toldAside keeps a part for the open job of a machine that needs it: of a drawer, by its words, or of a line of an order.
type toldAside struct {
	Job, Need, Stock string
	Line, Count      int
}

type toldOrder struct {
	parts.OrderInput
	SetAside []toldAside
	Arrives  []parts.ArrivalInput
}

// stores tells what lies in the drawers, what is on order, and what of both is meant for whom.
func (t teller) stores() error {
	told, err := readWorld[struct {
		Lines    []parts.StockInput
		Orders   []toldOrder
		SetAside []toldAside
	}]("stores.json")
	if err != nil {
		return err
	}
	there, err := t.actions.Parts.ListStock(t.ctx, t.curator, "", 0, 500)
	if err != nil {
		return err
	}
	lines := slices.Concat(told.Lines, drawersOfSeries())
	for _, line := range lines {
		if slices.ContainsFunc(there.Parts, func(s parts.Stock) bool { return s.What == line.What }) {
			continue
		}
		if _, err := t.actions.Parts.AddStock(t.ctx, t.curator, line); err != nil {
			return fmt.Errorf("%s: %w", line.What, err)
		}
	}
	orders, err := t.actions.Parts.Orders(t.ctx, t.curator)
	if err != nil || len(orders) > 0 {
		return err
	}
	for _, one := range told.Orders {
		if err := t.order(one); err != nil {
			return fmt.Errorf("order of %s: %w", one.Supplier, err)
		}
	}
	for _, one := range told.SetAside {
		found, err := t.actions.Parts.ListStock(t.ctx, t.curator, one.Stock, 0, 1)
		if err != nil {
			return err
		}
		if err := t.setAside(one, parts.SetAsideInput{StockID: &found.Parts[0].ID}); err != nil {
			return fmt.Errorf("%s for %s: %w", one.Stock, one.Job, err)
		}
	}
	return nil
}

func (t teller) order(told toldOrder) error {
	order, err := t.actions.Parts.AddOrder(t.ctx, t.curator, told.OrderInput)
	if err != nil {
		return err
	}
	for _, one := range told.SetAside {
		if err := t.setAside(one, parts.SetAsideInput{OrderID: &order.ID, Line: one.Line}); err != nil {
			return err
		}
	}
	for _, one := range told.Arrives {
		if order, err = t.actions.Parts.BookArrival(t.ctx, t.curator, order.ID, order.Version, one); err != nil {
			return err
		}
	}
	return nil
}

func (t teller) setAside(told toldAside, in parts.SetAsideInput) error {
	jobs, err := t.actions.Work.OpenJobs(t.ctx, t.curator)
	if err != nil {
		return err
	}
	at := slices.IndexFunc(jobs, func(j work.Job) bool {
		return j.Accession == told.Job && slices.Contains(j.Needs, told.Need)
	})
	if at < 0 {
		return fmt.Errorf("no open job of %s needs %q", told.Job, told.Need)
	}
	in.Need, in.Count = told.Need, told.Count
	_, err = t.actions.Work.SetAside(t.ctx, t.curator, jobs[at].ID, in)
	return err
}

// drawersOfSeries are the drawers that each workshop has: a series of resistors, of capacitors, of logic.
func drawersOfSeries() []parts.StockInput {
	lines := []parts.StockInput{}
	add := func(place string, count int, format string, about ...any) {
		lines = append(lines, parts.StockInput{What: fmt.Sprintf(format, about...), Kind: "component", Condition: "new",
			Count: count, Place: place})
	}
	for i, step := range []int{10, 12, 15, 18, 22, 27, 33, 39, 47, 56, 68, 82} {
		for decade, unit := range []string{"ohm", "ohm", "k", "k", "k"} {
			value := float64(step) * []float64{1, 10, 0.1, 1, 10}[decade]
			add(fmt.Sprintf("Workshop, cabinet 1, row %d", decade+1), 20+i*7%31, "%g%s 1/4W 5%%", value, unit)
		}
		add("Workshop, cabinet 1, row 6", 3+i%4, "%dohm 1W 5%%", step)
		add("Workshop, cabinet 2, row 1", 10+i%5, "%dp 50V ceramic", step*10)
		add("Workshop, cabinet 2, row 2", 12+i%7, "%gn 63V film", float64(step)/10)
		add("Workshop, cabinet 2, row 3", 8+i%3, "%dn 63V film", step)
	}
	for i, value := range []string{"1u", "2.2u", "4.7u", "10u", "22u", "47u", "100u", "220u"} {
		for j, volts := range []int{16, 25, 35, 50, 63} {
			add("Workshop, cabinet 2, row 4", 4+(i+j)%9, "%s %dV radial 105C", value, volts)
		}
	}
	for i, number := range []string{"00", "02", "04", "08", "10", "11", "14", "20", "21", "30", "32", "38", "42",
		"74", "85",
		"86", "90", "93", "107", "123", "125", "132", "138", "139", "145", "151", "153", "157", "158", "161", "163",
		"164",
		"165", "166", "173", "174", "175", "193", "240", "241", "244", "245", "251", "253", "257", "259", "273", "279",
		"283", "367", "373", "374", "393"} {
		add("Workshop, cabinet 3, row 1", 2+i%11, "74LS%s", number)
		add("Workshop, cabinet 3, row 2", 1+i%6, "74HCT%s", number)
	}
	for i, number := range []string{"1N4148", "1N4001", "1N4007", "1N5819", "LM339", "LM358", "LM7805", "LM7812",
		"NE555",
		"MC1488", "MC1489", "ULN2003", "BC547", "BC557", "2N2222"} {
		add("Workshop, cabinet 3, row 3", 5+i*3%17, "%s", number)
	}
	return lines
}
