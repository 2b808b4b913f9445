package setup

import (
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/memory"
	"frugalheron/core/population"
	"frugalheron/store/setup"
)

// MemoryRulesInput is which memory modules a machine takes.
type MemoryRulesInput struct {
	Rules string `json:"rules" says:"text" maxLength:"8000" doc:"A line each: bank 0 | M1-M4, sizes 256Kx9 1Mx9, rule full, rule same size, rule parity, most 120 ns, most 16 MB, depth 1M, allowed 0 = 1Mx9 | JP3 at 2-3"`
	Note  string `json:"note" says:"text" maxLength:"1000" required:"false"`
}

// MemoryRules is that with its version; 0 while nobody wrote it.
type MemoryRules struct {
	MachineID int64 `json:"machineId"`
	MemoryRulesInput
	Version int `json:"version"`
}

// OfferedMemoryRules are those of another machine of the same model.
type OfferedMemoryRules struct {
	Accession string `json:"accession"`
	MemoryRulesInput
}

// SocketNow is a socket with the module in it.
type SocketNow struct {
	Socket     string `json:"socket"`
	Module     string `json:"module" says:"text" doc:"Empty where the sheet says that it is empty, or has no such place"`
	AssemblyID int64  `json:"assemblyId" doc:"The board; 0 where no sheet has the socket"`
	Line       int    `json:"line"`
}

// SocketPlan is what goes into a socket.
type SocketPlan struct {
	Socket  string `json:"socket"`
	Module  string `json:"module" says:"text" doc:"Empty for none; what is bought stands as its size"`
	Changed bool   `json:"changed"`
}

// BrokenRule is a rule that does not hold.
type BrokenRule struct {
	Rule    population.Rule `json:"rule" enum:"full,order,mixed,size,parity,speed,max,organisation,not-allowed"`
	Sockets []string        `json:"sockets"`
	Why     string          `json:"why" says:"text"`
}

// PopulationPlan is a population that may stand.
type PopulationPlan struct {
	Amount  string       `json:"amount" doc:"With its unit"`
	Sockets []SocketPlan `json:"sockets"`
	Changes int          `json:"changes"`
	Buy     []string     `json:"buy" doc:"Modules that would have to be bought"`
	Jumpers []string     `json:"jumpers" says:"text" doc:"How jumpers are set with it"`
}

// PopulationRow is one of the populations that may stand at all.
type PopulationRow struct {
	Amount  string   `json:"amount"`
	Sizes   []string `json:"sizes" doc:"By bank; empty for one without modules"`
	Jumpers []string `json:"jumpers" says:"text"`
}

// Population is which memory stands in a machine, whether it may, and what could.
type Population struct {
	Rules    MemoryRules          `json:"rules"`
	Offered  []OfferedMemoryRules `json:"offered" doc:"Rules of other machines of the model, while this one has none"`
	Sockets  []SocketNow          `json:"sockets"`
	Amount   string               `json:"amount" doc:"Of all that is fitted, legal or not"`
	Legal    bool                 `json:"legal"`
	Broken   []BrokenRule         `json:"broken"`
	Plans    []PopulationPlan     `json:"plans"`
	Why      string               `json:"why" says:"text" doc:"Why there is no plan"`
	Banks    []string             `json:"banks" doc:"Columns of the table"`
	Table    []PopulationRow      `json:"table" doc:"Populations that may stand with one size a bank, whatever lies ready"`
	IsWhole  bool                 `json:"isWhole" doc:"The table has them all"`
	Remarks  []string             `json:"remarks" says:"text"`
	Stock    int                  `json:"stock" doc:"Modules in the stores that could serve"`
	HasRules bool                 `json:"hasRules"`
}

// mostTable bounds the rows of the table.
const mostTable = 60

var memoryRules = documentsOf(setup.MemoryRules, "the rules of its memory", eventChangeRules, tellRules,
	func(v MemoryRules) any { return v.MemoryRulesInput })

func tellRules(row setup.Document) MemoryRules {
	kept, _ := action.ReadKept[MemoryRulesInput](row.Body) // written by this package alone
	return MemoryRules{row.MachineID, kept, row.Version}
}

// ChangeMemoryRules writes which modules a machine takes, from the version that somebody saw.
func (s *Service) ChangeMemoryRules(ctx context.Context, actor action.Actor, machineID int64, version int,
	in MemoryRulesInput) (MemoryRules, error) {
	err := input.CheckAll(input.Lines("rules", &in.Rules), input.Lines("note", &in.Note))
	if err == nil {
		_, err = population.ParseRules(in.Rules)
		err = refusedAs("rules", err)
	}
	if err != nil {
		return MemoryRules{}, err
	}
	return memoryRules.change(ctx, s.kernel, actor, machineID, version, in)
}

// Population tells which memory stands in a machine by its sheets and what could, from what is fitted and lies in the stores.
// Want is empty for the nearest that may stand, an amount, or max.
func (s *Service) Population(ctx context.Context, actor action.Actor, machineID int64, want string) (Population,
	error) {
	told := Population{Offered: []OfferedMemoryRules{}, Sockets: []SocketNow{}, Broken: []BrokenRule{},
		Plans: []PopulationPlan{}, Banks: []string{}, Table: []PopulationRow{}, Remarks: []string{}}
	asked, err := wanted(want)
	if err != nil {
		return told, err
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (Population, error) {
		if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
			return told, err
		}
		h := s.kernel.Reader(ctx)
		row, err := setup.DocumentOf(ctx, h, setup.MemoryRules, machineID)
		if err != nil {
			return told, err
		}
		told.Rules = tellRules(row)
		in, err := population.ParseRules(told.Rules.Rules)
		if err != nil {
			return told, err // what is kept was checked
		}
		if told.HasRules = len(in.Banks) > 0; !told.HasRules {
			rows, err := setup.DocumentsOfModel(ctx, h, setup.MemoryRules, machineID, mostOffers)
			for _, one := range rows {
				told.Offered = append(told.Offered, OfferedMemoryRules{one.Accession,
					tellRules(setup.Document{Body: one.Body}).MemoryRulesInput})
			}
			return told, err
		}
		in.Want = asked
		if err := s.populate(ctx, machineID, &in, &told); err != nil {
			return told, err
		}
		if err := s.ready(ctx, actor, &in, &told); err != nil {
			return told, err
		}
		library, err := s.library.Read(ctx)
		if err != nil {
			return told, err
		}
		out, err := population.Judge(library, in)
		if err != nil {
			return told, refusedAs("rules", err)
		}
		told.judge(in, out)
		rowsOf, whole, err := population.Table(library, in)
		told.table(rowsOf, whole)
		return told, err
	})
}

func wanted(want string) (*population.Want, error) {
	switch want = strings.TrimSpace(want); want {
	case "":
		return nil, nil
	case "max":
		return &population.Want{IsMax: true}, nil
	}
	bytes, err := memory.ParseSize(want)
	if err != nil {
		return nil, action.Reject("want", err.Error())
	}
	return &population.Want{Bytes: bytes}, nil
}

// populate puts in what the sheets have in the sockets.
func (s *Service) populate(ctx context.Context, machineID int64, in *population.Input, told *Population) error {
	sockets := []string{}
	for _, b := range in.Banks {
		told.Banks = append(told.Banks, b.ID)
		sockets = append(sockets, b.Sockets...)
	}
	found, err := setup.Sockets(ctx, s.kernel.Reader(ctx), machineID, sockets)
	in.Fitted = map[string]*string{}
	for _, socket := range sockets {
		now := SocketNow{Socket: socket}
		at := slices.IndexFunc(found, func(f setup.InSocket) bool { return f.Designator == socket })
		if at < 0 {
			told.Remarks = append(told.Remarks, "no sheet has "+socket+"; it counts as empty")
		} else {
			one := found[at]
			now.AssemblyID, now.Line = one.AssemblyID, one.Line
			if !one.Empty {
				now.Module = one.Marking
				in.Fitted[socket] = &now.Module
			}
			if slices.ContainsFunc(found[at+1:], func(f setup.InSocket) bool {
				return f.Designator == socket && f.AssemblyID != one.AssemblyID
			}) {
				told.Remarks = append(told.Remarks, socket+" is on several boards; the first one counts")
			}
		}
		told.Sockets = append(told.Sockets, now)
	}
	return err
}

// ready takes in the modules of the stores, for those who may see them.
func (s *Service) ready(ctx context.Context, actor action.Actor, in *population.Input, told *Population) error {
	if actor.Hides() {
		told.Remarks = append(told.Remarks, "what lies in the stores is told to staff alone, so it is left out here")
		return nil
	}
	page, err := s.parts.ListStock(ctx, actor, "", 0, mostDrawers)
	for _, drawer := range page.Parts {
		if drawer.Free > 0 && population.IsModule(drawer.What) {
			in.Stock = append(in.Stock, population.Stock{Text: drawer.What, Count: drawer.Free})
			told.Stock += drawer.Free
		}
	}
	if page.Next != 0 {
		told.Remarks = append(told.Remarks, fmt.Sprintf("only the first %d drawers were looked through", mostDrawers))
	}
	return err
}

// mostDrawers bounds how many are looked through for modules.
const mostDrawers = 2000

// judge takes in what the rules say.
func (p *Population) judge(in population.Input, out population.Output) {
	p.Legal, p.Amount, p.Why = out.Legal, memory.Format(out.Bytes), out.Why
	for _, b := range out.Broken {
		p.Broken = append(p.Broken, BrokenRule(b))
	}
	for _, plan := range out.Plans {
		one := PopulationPlan{Amount: memory.Format(plan.Bytes), Changes: plan.Changes, Sockets: []SocketPlan{},
			Buy:     []string{},
			Jumpers: jumpersOf(plan.Jumpers)}
		for _, now := range p.Sockets {
			planned := SocketPlan{Socket: now.Socket}
			if module := plan.Sockets[now.Socket]; module != nil {
				planned.Module = *module
			}
			planned.Changed = planned.Module != now.Module
			one.Sockets = append(one.Sockets, planned)
		}
		for _, b := range plan.Buy {
			one.Buy = append(one.Buy, fmt.Sprintf("%d x %s", b.Count, b.Size))
		}
		p.Plans = append(p.Plans, one)
	}
	if len(in.Banks) > 0 && out.Bytes == 0 {
		p.Amount = "none"
	}
}

func (p *Population) table(rows []population.Standing, whole bool) {
	p.IsWhole = whole && len(rows) <= mostTable
	for _, row := range rows[:min(len(rows), mostTable)] {
		p.Table = append(p.Table, PopulationRow{memory.Format(row.Bytes), row.Sizes, jumpersOf(row.Jumpers)})
	}
}

func jumpersOf(set map[string]any) []string {
	told := []string{}
	for _, name := range slices.Sorted(maps.Keys(set)) {
		at, isText := set[name].(string)
		if !isText {
			encoded, _ := json.Marshal(set[name]) //nolint:errcheck // what was read can be written
			at = string(encoded)
		}
		told = append(told, name+" at "+at)
	}
	return told
}
