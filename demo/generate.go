package demo

import (
	"context"
	"fmt"
	"math/rand/v2"
	"strings"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/sheets"
)

// entriesPerMachine is how many lines the sheets of a generated machine hold.
const entriesPerMachine = 50

// generatedPrefix numbers generated machines apart from the sample world's own.
const generatedPrefix = "EL-"

// Generate adds generated machines with their sheets, 50 entries each, until there are so many. The
// same number gives the same machine every time; those that are there already are left alone.
func Generate(ctx context.Context, actions *app.App, machines int, progress func(string)) error {
	curator := action.Actor{Role: action.Curator}
	last, err := actions.Inventory.ListMachines(ctx, curator,
		inventory.MachineList{MachineFilters: inventory.MachineFilters{Search: generatedPrefix}, Sort: "accession",
			Descending: true, Limit: 1})
	if err != nil {
		return err
	}
	done := 0
	if len(last.Machines) > 0 {
		if _, err := fmt.Sscanf(last.Machines[0].Accession, generatedPrefix+"%d", &done); err != nil {
			return fmt.Errorf("machine %s is none that was generated: %w", last.Machines[0].Accession, err)
		}
	}
	const batch = 100
	for done < machines {
		entered := make([]sheets.MachineWithSheets, 0, batch)
		for n := done + 1; n <= min(done+batch, machines); n++ {
			entered = append(entered, generatedMachine(n))
		}
		if err := actions.Sheets.EnterMachines(ctx, curator, entered); err != nil {
			return err
		}
		done += len(entered)
		if done%1000 == 0 || done == machines {
			progress(fmt.Sprintf("%d of %d machines, %d entries", done, machines, done*entriesPerMachine))
		}
	}
	return actions.Inventory.MeasureTables(ctx)
}

var (
	generatedMakers = []string{"Tarn & Vole", "Quennell Systems", "Brackwater Micro", "Hollin Electronics",
		"Fennimoor Instruments", "Ostrand & Pike"}
	generatedModels = []string{"Meridian", "Sorter", "Tidemark", "Lantern", "Ropewalk", "Curlew", "Saltpan", "Beacon",
		"Sluice", "Warden"}
	generatedPlaces = []string{"Rope walk", "Seed loft", "Boiler house store", "Net store", "Lime kiln", "Sail loft",
		"Customs shed", "Ice house"}
	generatedPasts = []string{"Kept the tide tables at the north mole", "Counted stock for a brewery",
		"Ran the light desk of a puppet theatre",
		"Logged the boiler of a swimming bath", "Taught evening classes at a net loft",
		"Wrote bills for a ferry company"}
	generatedMemories = []string{"4116-20", "4164-15", "41256-12", "4416-15", "2114-3", "6116-15", "6264-15"}
	generatedROMs     = []string{"2716", "2732A-25", "2764-25", "27128-25", "27256-20", "2364"}
	generatedSupport  = []string{"8255AC-5", "8253C-5", "8251A", "8259A", "6845", "8237A-5", "6821", "6850"}
	generatedLogic    = []string{"00", "02", "04", "08", "10", "14", "20", "27", "30", "32", "74", "86", "93", "107",
		"109", "112", "123", "125", "132", "138", "139",
		"151", "153", "157", "161", "163", "164", "165", "166", "173", "174", "175", "193", "195", "240", "241", "244",
		"245", "257", "258", "273", "283",
		"299", "322", "365", "367", "373", "374", "375", "378", "379", "393"}
)

func pick(r *rand.Rand, from []string) string { return from[r.IntN(len(from))] }

// generatedMachine makes machine n, the same each time.
func generatedMachine(n int) sheets.MachineWithSheets {
	r := rand.New(rand.NewPCG(uint64(n), 20260107))
	year := 1976 + r.IntN(16)
	to := year + 1 + r.IntN(4)
	model := pick(r, generatedModels)
	fields := inventory.MachineInput{
		Accession: fmt.Sprintf(generatedPrefix+"%06d", n), Name: fmt.Sprintf("%s %d", model, 1+r.IntN(9)),
		Maker: pick(r, generatedMakers), Model: fmt.Sprintf("%s %c", model, 'A'+r.IntN(6)),
		Serial: fmt.Sprintf("%02d-%05d", year%100, r.IntN(100000)), EraFrom: &year, EraTo: &to,
		Place:      fmt.Sprintf("%s, bay %d", pick(r, generatedPlaces), 1+r.IntN(6)),
		Provenance: pick(r, generatedPasts) + fmt.Sprintf(" until %d.", to+r.IntN(8)),
	}
	text := &strings.Builder{}
	main := 32 + r.IntN(10)
	fmt.Fprintf(text, "== Main board | part %d-%d | rev %c | fit factory\n", 1000+r.IntN(9000), 1+r.IntN(4),
		'A'+r.IntN(5))
	generatedLines(text, r, year, main)
	fmt.Fprintf(text, "== Memory card | part MC-%d | slot %d | fit later | kind card\n", 10+r.IntN(90), 1+r.IntN(5))
	generatedLines(text, r, year, entriesPerMachine-main)
	return sheets.MachineWithSheets{Fields: fields, Sheets: text.String()}
}

// generatedLines writes entries of a board: a processor nobody named, memory, ROMs, support and
// logic, now and then something unreadable, damaged or written down twice.
func generatedLines(b *strings.Builder, r *rand.Rand, year, lines int) {
	week := func() string { return fmt.Sprintf("%02d%02d", (year+r.IntN(2))%100, 1+r.IntN(52)) }
	at := 1
	designators := func(count int) string {
		from := at
		at += count
		if count == 1 {
			return fmt.Sprintf("U%d", from)
		}
		return fmt.Sprintf("U%d-U%d", from, at-1)
	}
	for line := range lines {
		switch kind := r.IntN(100); {
		case line == 0:
			fmt.Fprintf(b, "%-10s HX%d %s @socket\n", designators(1), 9000+r.IntN(400), week())
		case line == 1:
			fmt.Fprintf(b, "%-10s %s %s\n", designators(8), pick(r, generatedMemories), week())
		case line == 2:
			fmt.Fprintf(b, "%-10s %s %s @socket\n", designators(1+r.IntN(4)), pick(r, generatedROMs), week())
		case line == 3:
			fmt.Fprintf(b, "X%-9d %d.000 MHz\n", at, 4+r.IntN(20))
		case line == lines-1 && kind < 6:
			fmt.Fprintf(b, "%-10s 74LS00\n", "U1") // stands there already
		case kind < 2:
			fmt.Fprintf(b, "%-10s ?\n", designators(1))
		case kind < 5:
			fmt.Fprintf(b, "C%-9d 0.1uF X2 275V !cracked\n", line)
		case kind < 18:
			fmt.Fprintf(b, "%-10s D%s %s\n", designators(1), pick(r, generatedSupport), week())
		default:
			fmt.Fprintf(b, "%-10s SN74LS%sN %s\n", designators(1+r.IntN(2)), pick(r, generatedLogic), week())
		}
	}
}
