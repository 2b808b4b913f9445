package app_test

import (
	"reflect"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/arrivals"
	"frugalheron/app/condition"
	"frugalheron/app/diagnosis"
	"frugalheron/app/evidence"
	"frugalheron/app/files"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/parts"
	"frugalheron/app/people"
	"frugalheron/app/power"
	"frugalheron/app/roms"
	"frugalheron/app/setup"
	"frugalheron/app/teardown"
	"frugalheron/app/unknowns"
	"frugalheron/app/upkeep"
	"frugalheron/app/wanted"
	"frugalheron/app/work"
)

// full fails for a field that a test leaves empty: nobody would see that it is lost.
func full(t *testing.T, written any, but ...string) {
	t.Helper()
	v := reflect.ValueOf(written)
	for i := range v.NumField() {
		field := v.Type().Field(i)
		if field.Anonymous {
			full(t, v.Field(i).Interface(), but...)
			continue
		}
		require.True(t, slices.Contains(but, field.Name) || !v.Field(i).IsZero(), "%s of %s is empty", field.Name,
			v.Type())
	}
}

// What somebody writes comes back as it was written, each field where it belongs: from the action, and from a later
// reading of something else.
func TestWhatIsWrittenComesBack(t *testing.T) {
	u := newUndoables(t)
	party := must(u.People.AddParty(ctx, curator, people.PartyInput{Name: "Gull Point Light", Kind: "organisation"})).ID
	citation := evidence.Citation{Kind: "label", Cited: "rating plate", Page: "3", Link: "https://example.org/plate",
		PictureID: &u.picture, Region: &evidence.Region{X: 0.1, Y: 0.2, W: 0.3, H: 0.4}, PartyID: &party,
		StatedOn: "1991-05"}
	person := people.PartyInput{Name: "Ysolde Marram", Kind: "person", Private: true, Role: "a former pilot",
		Spellings: "Y. Marram\nIsolde Marram", Place: "Gull Point", Note: "met at the fair"}
	decided, done := "2026-03-01", "2026-03-02"
	data := people.PersonalDataInput{Medium: "hard disk", Sort: "letters", Decision: "wipe", Reason: "asked for",
		DecidedBy: "Ottilie", DecidedOn: &decided, DoneOn: &done}
	price, estimate, hand, value, passed := int64(12_00), int64(7_00), int64(5_00), int64(9_00), int64(8_00)
	lot := arrivals.AcquisitionInput{Title: "Clear-out", Method: "auction", Arrived: "2025-03-14", PartyID: &party,
		PriceCents: &price, Currency: "DKK", Spread: "hand",
		Costs:     []arrivals.ExtraCost{{What: "carriage", Cents: 4_50}},
		Condition: "dusty", Powered: "in 1999", CameWith: "a lead", Note: "by boat"}
	thing := arrivals.LotItemInput{Kind: "board", Title: "Memory card", EstimateCents: &estimate, HandCents: &hand,
		ValueCents: &value, ValueNote: "by a list", PassedTo: &party, PassedOn: "2026-01", PassedForCents: &passed,
		Note: "bent"}
	custody := arrivals.CustodyInput{Role: "used-by", Place: "the bath", Dates: "1984/1990", UsedFor: "tickets",
		Citation: citation}
	from, to := 1983, 1989
	machine := inventory.MachineInput{Accession: "EH-0777", Name: "Lantern", Maker: "Tarn & Vole", Model: "Lantern 2",
		Serial: "LT-0417", EraFrom: &from, EraTo: &to, Place: "Loft", Provenance: "from the light"}
	board := inventory.AssemblyInput{Kind: "card", Title: "Memory card", Part: "4410-7", Rev: "B", Serial: "771",
		Slot: "3", Fit: "period", Purpose: "picture"}
	maker := library.MakerInput{Name: "Tarn & Vole", Founded: "1979", Ended: "1991", Place: "Gull Point",
		Ties: "renamed | Vole Works | 1991 | letter head", Note: "three sites", Source: "letter head"}
	model := library.ModelInput{Maker: "Tarn & Vole", Model: "Lantern 2", Made: "1984/1988", Variants: "Lantern 2P",
		Figures: "+5 = 4.9 .. 5.2 V", Facts: "slots = 5 | manual", Signs: "code E4 | any | no keyboard",
		Expected: "Main board | part 4410-2", Note: "two fans", Source: "manual"}
	ownType := library.OwnTypeInput{Number: "HX9111", Class: "sram", Function: "buffer memory", Words: 2048, Bits: 8,
		Package: "DIP-24", ClockMHz: 4, TypicalMA: 90, Notes: "runs hot", Maker: "Tarn & Vole", Currents: "+5 90/120",
		Ageing: "loses its charge", Substitutes: "HX9112", Documents: "sheet of 1985"}
	card := library.KnownInput{Kind: "card", Name: "Memory card", Maker: "Tarn & Vole", Numbers: "4424-1",
		Revisions: "B-C",
		Printed:   "Vole Store", Chips: "8x 41256\n74LS245\n74LS158\n74S74", Details: "memory 384 KB",
		Signs:  "lamps 1 | any | it runs",
		Note:   "two were bought",
		Source: "price list"}
	about := files.AttachmentInput{Caption: "The rear", View: "rear", Taken: "2025-06", Language: "de-CH",
		Translation: "rear", Address: "https://example.org/rear", Captured: "2025-06-02", Numbers: "TV1-00417",
		StaffOnly: true, Portrait: true}
	finding := condition.FindingInput{Subsystem: "batteries", Kind: "leaking", AssemblyID: &u.board, Designator: "U1",
		Place: "near the edge", AttachmentID: &u.picture, Region: &evidence.Region{X: 0.1, Y: 0.2, W: 0.3, H: 0.4}}
	said := evidence.StatementInput{Attribute: "label", Subject: "HD1", Value: "LT-0417", Nature: "part",
		Form: "identifier", Citation: citation}
	image := roms.RomInput{Name: "Monitor", Edition: "1.1", Note: "by its texts", Public: true}
	question := unknowns.QuestionInput{Sort: "connector", Subject: "the round plug", MachineID: &u.machine,
		Text: "what goes in", Asked: "the harbour list"}
	collection := inventory.CollectionInput{Name: "Gull Point Collection", AccessionPattern: "GP-{number:5}",
		Currency: "DKK", TimeZone: "Europe/Copenhagen", MainsVolts: 230, MainsHz: 50, SupplyMonths: 6}
	todo := work.JobInput{PicturesBefore: []int64{u.picture}, PicturesAfter: []int64{u.picture},
		Title: "Another battery", Template: "battery-new", FindingKeys: []string{"0123"},
		AssemblyID: &u.board, Place: "U1", Needs: []string{"NiMH 3.6V"}, Proof: "volts in place",
		Temporary: "2030-01-01",
		Note:      "leads long"}
	symptom := diagnosis.DiagnosisInput{Symptom: "no picture", Since: "2026-03-01", State: "found", Cause: "a lead",
		Note: "when cold", Factors: []diagnosis.FactorInput{{Name: "other lead", Kind: "part", Effort: 5, Danger: true,
			AssemblyID: &u.board}}, Trials: []diagnosis.TrialInput{{On: []string{"other lead"}, Runs: 10, Failed: 3,
			Day: "2026-03-02", Note: "shaken"}}}
	setUp := setup.ConfigurationInput{Title: "as found", Kind: "as found", On: "2026-03-01",
		Cards:    []setup.ConfiguredCard{{AssemblyID: &u.board, Title: "Main board", Slot: "1", Settings: "JP3 1-2"}},
		Firmware: "drive C = type 17", Media: "drive A = starter", Note: "cell flat",
		Files: []setup.ConfiguredFile{{Name: "START", Text: "echo 1\r\n\n"}}}
	operated := setup.OperatingCardInput{Start: "key to the right", Stop: "key to the left", SignOn: "as operator",
		Keys: "Break = stops it", Radix: "hex", AddressBits: 12, DataBits: 8, Advance: 1, Panel: "address 0FF\ndeposit 3C",
		Note: "lamps dim"}
	modules := setup.MemoryRulesInput{Rules: "bank 0 | M1-M4\nsizes 1Mx9", Note: "by the manual"}
	slots := setup.BackplaneInput{Layout: "row A | 8-bit | 1 2", Note: "by the plan on its lid"}
	credential := setup.CredentialInput{What: "operator", Kind: "licence key", User: "op", ForTechnicians: true,
		Note: "on a label"}
	looked := wanted.WantInput{What: "Service handbook", Kind: "manual", Alerts: []string{"handbook 4410"},
		MachineID: &u.machine, MostCents: &price, Since: "2019-03-01", State: "given up", Note: "was never printed"}
	offered := wanted.OfferInput{Title: "Box of cards", Text: "as found", Source: "Gull Point fair",
		AskingCents: &price,
		LimitCents:  &price, SeenOn: "2026-03-01", EndsOn: "2030-01-01", State: "declined", Note: "too far"}
	drawer := parts.StockInput{What: "battery lead 120 mm", Kind: "made", Condition: "new", Count: 3, Minimum: 1,
		DateCode: "2611", Place: "Loft, box 2", Source: "made here", PriceCents: &price, BackBy: "2030-01-01",
		BackTo: "Gull Point Light", Model: "Lantern 2", Material: "silicone wire", Why: "the old one is brittle",
		Note: "red"}
	order := parts.OrderInput{Supplier: "Reed & Rush", Number: "77-1", OrderedOn: "2026-03-01", DueOn: "2026-03-09",
		Note: "by post", Lines: []parts.OrderLineInput{{N: 1, What: "NiMH 3.6V", Count: 2, PriceCents: &price}}}
	ordered := must(u.Parts.AddOrder(ctx, curator, order))
	volts := 230.0
	supply := power.SupplyInput{Name: "built in", Kind: "mains", PlateVolts: "115/230", PlateHz: "50/60",
		PlatePolarity: "none", Selector: &volts, SourceVolts: &volts, SourcePolarity: "none", InspectedOn: "2025-06-01",
		InspectedBy: "Bram Sedge", MovedOn: "2025-05-01", RanOn: "2025-06-02", Needs: []string{"+5"},
		Rating: []power.RailAmperes{{Rail: "+5", Amperes: 10}}, StartsWithMains: true, Note: "hums"}
	procedure := teardown.ProcedureInput{Maker: "Tarn & Vole", Model: "Lantern 2", Title: "Down to the board",
		Body: "Lid\nCage", Warnings: "the spring"}

	other := must(u.Library.AddModel(ctx, curator, library.ModelInput{Maker: "Tarn & Vole", Model: "Lantern 1"}))
	machine.ModelID = &other.ID
	rule := upkeep.RuleInput{Task: "Run it", EveryMonths: 12, Of: "machine", ModelID: &other.ID, Looks: true, Runs: true,
		Minutes: 20, Measures: "volts", How: "slowly"}
	plan := upkeep.PlanInput{On: "2026-03-01", What: "Run it", Minutes: 30, Who: "Bram", RuleID: &u.rule, MachineID: &u.machine,
		DoneOn: "2026-03-02"}
	added := must(u.Inventory.CreateMachine(ctx, curator, machine)).ID
	sum := must(u.Roms.Roms(ctx, curator, u.machine))[0].Chip.SHA256
	if sum == "" {
		sum = must(u.Roms.Roms(ctx, curator, u.machine))[0].Image.SHA256
	}
	pictures := func() []files.Attachment {
		return must(u.Files.Attachments(ctx, curator, files.Owner{MachineID: &u.machine}, 0, 9)).Attachments
	}
	lots := func(id int64) arrivals.Lot { return must(u.Arrivals.Lot(ctx, curator, id)) }
	received := must(u.Arrivals.Receive(ctx, curator, lot, []arrivals.LotItemInput{thing}))
	log := must(u.Teardown.StartTeardown(ctx, curator, added,
		teardown.StartedTeardown{Purpose: "to look", Rows: 2, Columns: 2})).ID
	must(u.Teardown.AddStep(ctx, curator, log, teardown.StepInput{Line: "Lid"}))
	made := must(u.Teardown.MakeProcedure(ctx, curator, log, "Down", ""))
	must(u.People.NotePersonalData(ctx, curator, u.machine, data))
	for name, one := range map[string]struct {
		written     any
		empty       []string // fields that cannot hold anything beside the others
		wrote, read any
	}{
		"party": {written: person, wrote: must(u.People.AddParty(ctx, curator, person)).PartyInput,
			read: must(u.People.Parties(ctx, curator, "Marram"))[0].PartyInput},
		"personal data": {written: data,
			wrote: must(u.Bench.Dossier(ctx, curator, u.machine)).PersonalData[0].PersonalDataInput},
		"lot": {written: lot, wrote: received.AcquisitionInput, read: lots(received.ID).AcquisitionInput},
		"thing": {written: thing, wrote: received.Things[0].LotItemInput,
			read: lots(received.ID).Things[0].LotItemInput},
		"custody": {written: custody, empty: []string{"Who"},
			wrote: must(u.Arrivals.TellCustody(ctx, curator, u.machine, custody)).CustodyInput,
			read:  must(u.Bench.Dossier(ctx, curator, u.machine)).Chain.Links[1].CustodyInput},
		"machine": {written: machine, wrote: must(u.Inventory.Machine(ctx, curator, added)).MachineInput,
			read: must(u.Inventory.Find(ctx, curator, "EH-0777")).Exact.MachineInput},
		"board": {written: board, wrote: must(u.Inventory.AddAssembly(ctx, curator, added, board)).AssemblyInput,
			read: must(u.Sheets.Contents(ctx, curator, added))[0].AssemblyInput},
		"maker": {written: maker, wrote: must(u.Library.AddMaker(ctx, curator, maker)).MakerInput,
			read: must(u.Library.Makers(ctx, curator, "Vole"))[0].MakerInput},
		"model": {written: model, wrote: must(u.Library.AddModel(ctx, curator, model)).ModelInput,
			read: must(u.Library.Models(ctx, curator, "Lantern 2"))[0].ModelInput},
		"type": {written: ownType, wrote: must(u.Library.NameType(ctx, curator, ownType)).OwnTypeInput,
			read: must(u.Library.SearchLibrary(ctx, curator, "HX9111", 1))[0].Own.OwnTypeInput},
		"known": {written: card, wrote: must(u.Library.NameKnown(ctx, curator, card)).KnownInput,
			read: must(u.Library.KnownAssemblies(ctx, curator, "vole store", 0, 1)).Known[0].KnownInput},
		"picture": {written: about,
			wrote: must(u.Files.ChangeAttachment(ctx, curator, u.picture, 1, about)).AttachmentInput,
			read:  pictures()[0].AttachmentInput},
		"finding": {written: finding, wrote: must(u.Condition.NoteFinding(ctx, curator, u.machine,
			condition.NotedFinding{Subsystem: "batteries", ObservedFinding: condition.ObservedFinding{New: &finding,
				Severity: "repair"}})).Findings[1].FindingInput},
		"statement": {written: said, wrote: must(u.Evidence.StateEvidence(ctx, curator, u.machine,
			said)).StatementInput},
		"image": {written: image, wrote: must(u.Roms.NameRom(ctx, curator, sum, 1, image)).RomInput,
			read: must(u.Roms.RomList(ctx, curator, "Monitor", 0, 1)).Images[0].RomInput},
		"question": {written: question, wrote: must(u.Unknowns.Ask(ctx, curator, question)).QuestionInput},
		"collection": {written: collection,
			wrote: must(u.Inventory.ChangeCollection(ctx, curator, 1, collection)).CollectionInput,
			read:  must(u.Inventory.Collection(ctx, curator)).CollectionInput},
		"job": {written: todo, wrote: must(u.Work.AddJob(ctx, curator, u.machine, todo)).JobInput},
		"diagnosis": {written: symptom, wrote: must(u.Diagnosis.Begin(ctx, curator, u.machine, symptom)).DiagnosisInput,
			read: must(u.Diagnosis.Diagnoses(ctx, curator, u.machine)).Diagnoses[1].DiagnosisInput},
		"configuration": {written: setUp, wrote: must(u.Setup.Keep(ctx, curator, u.machine, setUp)).ConfigurationInput,
			read: must(u.Setup.Setup(ctx, curator, u.machine)).Configurations[1].ConfigurationInput},
		"operating card": {written: operated,
			wrote: must(u.Setup.ChangeOperatingCard(ctx, curator, u.machine, 0, operated)).OperatingCardInput,
			read:  must(u.Setup.Operating(ctx, curator, u.machine)).Card.OperatingCardInput},
		"memory rules": {written: modules,
			wrote: must(u.Setup.ChangeMemoryRules(ctx, curator, u.machine, 0, modules)).MemoryRulesInput,
			read:  must(u.Setup.Population(ctx, curator, u.machine, "")).Rules.MemoryRulesInput},
		"backplane": {written: slots,
			wrote: must(u.Setup.ChangeBackplane(ctx, curator, u.machine, 0, slots)).BackplaneInput,
			read:  must(u.Setup.SlotPlan(ctx, curator, u.machine, setup.ThoughtMoves{})).Backplane.BackplaneInput},
		"credential": {written: credential,
			wrote: must(u.Setup.PutAway(ctx, curator, u.machine, credential, "estuary")).CredentialInput,
			read:  must(u.Setup.Credentials(ctx, curator, u.machine)).Credentials[1].CredentialInput},
		// behind what is open
		"want":  {written: looked, wrote: must(u.Wanted.AddWant(ctx, curator, looked)).WantInput},
		"offer": {written: offered, wrote: must(u.Wanted.AddOffer(ctx, curator, offered)).OfferInput},
		"stock": {written: drawer, wrote: must(u.Parts.AddStock(ctx, curator, drawer)).StockInput},
		"order": {written: order, wrote: parts.OrderInput{Supplier: ordered.Supplier, Number: ordered.Number,
			OrderedOn: ordered.OrderedOn, DueOn: ordered.DueOn, Note: ordered.Note,
			Lines: []parts.OrderLineInput{ordered.Lines[0].OrderLineInput}}},
		"rule": {written: rule, wrote: must(u.Upkeep.AddRule(ctx, curator, rule)).RuleInput,
			read: must(u.Upkeep.Rules(ctx, curator))[1].RuleInput},
		"plan": {written: plan, empty: []string{"JobID"}, wrote: must(u.Upkeep.AddPlan(ctx, curator, plan)).PlanInput},
		"supply": {written: supply, wrote: must(u.Power.AddSupply(ctx, curator, added, supply)).SupplyInput,
			read: must(u.Power.Power(ctx, curator, added)).Supplies[0].SupplyInput},
		"procedure": {written: procedure,
			wrote: must(u.Teardown.ChangeProcedure(ctx, curator, made.ID, made.Version, procedure)).ProcedureInput,
			read:  must(u.Teardown.Procedure(ctx, curator, made.ID)).ProcedureInput},
	} {
		full(t, one.written, one.empty...)
		require.Equal(t, one.written, one.wrote, name)
		if one.read != nil {
			require.Equal(t, one.written, one.read, name)
		}
	}
}
