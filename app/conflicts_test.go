package app_test

import (
	"encoding/json"
	"go/ast"
	"go/parser"
	"go/token"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/accounts"
	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	appcondition "frugalheron/app/condition"
	"frugalheron/app/diagnosis"
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
	"frugalheron/core/annotation"
	"frugalheron/core/condition"
	"frugalheron/core/identification"
	coreteardown "frugalheron/core/teardown"
)

// versionedActions are all actions that start from a version, as app/<subject> has them: those with a parameter of that
// name.
func versionedActions(t *testing.T) []string {
	paths, err := filepath.Glob("*/*.go")
	require.NoError(t, err)
	found := []string{}
	for _, path := range paths {
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.SkipObjectResolution)
		require.NoError(t, err)
		for _, declared := range file.Decls {
			f, ok := declared.(*ast.FuncDecl)
			if !ok || f.Recv == nil || !f.Name.IsExported() || filepath.Dir(path) == "action" {
				continue
			}
			for _, field := range f.Type.Params.List {
				if slices.ContainsFunc(field.Names, func(n *ast.Ident) bool { return n.Name == "version" }) {
					found = append(found, filepath.Dir(path)+"."+f.Name.Name)
				}
			}
		}
	}
	slices.Sort(found)
	return found
}

// Whoever starts from an old version is refused with the record as it is now, and nothing is changed. An action that
// starts from a version and does not stand here fails.
func TestEveryConflictTellsWhatIsThereNow(t *testing.T) {
	u := newUndoables(t)
	_, err := u.Accounts.AddAccount(ctx, "bram", "Bram Sedge", action.Technician, "tide gauge under glass")
	require.NoError(t, err)
	account := must(u.Accounts.Accounts(ctx, curator))[0]
	maker := must(u.Library.AddMaker(ctx, curator, library.MakerInput{Name: "Tarn & Vole"}))
	model := must(u.Library.AddModel(ctx, curator, library.ModelInput{Maker: "Tarn & Vole", Model: "Meridian 2"}))
	personal := must(u.People.NotePersonalData(ctx, curator, u.machine,
		people.PersonalDataInput{Medium: "tape", Sort: "letters"}))
	question := must(u.Unknowns.Ask(ctx, curator,
		unknowns.QuestionInput{Sort: "other", Subject: "the lamp", Text: "why"}))
	must(u.Condition.StartSurvey(ctx, curator, u.machine, "", ""))
	must(u.Work.Choose(ctx, curator, u.machine, "aim", 0, work.ChoiceInput{Option: "conserve", Why: "rare"}))
	must(u.Upkeep.Answer(ctx, curator, u.round, 1, 0, upkeep.AnswerInput{How: "seen"}))
	survey := must(u.Condition.Condition(ctx, curator, u.machine)).Running
	adjuster := must(u.Condition.AddAdjuster(ctx, curator, u.machine,
		appcondition.AdjusterInput{Name: "VR3", Does: "width", Position: "noon"}))[0]
	series := must(u.Condition.Measurements(ctx, curator, u.machine))[0]
	log := must(u.Teardown.Teardown(ctx, curator, u.log))
	step, connector := log.Steps[0], must(u.Teardown.Wiring(ctx, curator, u.machine)).Connectors[0]
	titled := must(u.Inventory.CreateMachine(ctx, curator, machineOf("EH-0009", "Tarn & Vole", "Meridian 2")))
	opened := must(u.Teardown.StartTeardown(ctx, curator, titled.ID,
		teardown.StartedTeardown{Purpose: "look", Rows: 2, Columns: 2}))
	must(u.Teardown.AddStep(ctx, curator, opened.ID, teardown.StepInput{Line: "Lid"}))
	procedure := must(u.Teardown.MakeProcedure(ctx, curator, opened.ID, "Down to the board", ""))
	lot := must(u.Arrivals.Lot(ctx, curator, u.lot))
	item := lot.Things[0].ID
	read := must(u.Roms.Roms(ctx, curator, u.machine))[0]
	mention := must(u.People.Mentions(ctx, curator))[0]
	party := must(u.People.Parties(ctx, curator, "rose"))[0]
	ownType := must(u.Library.SearchLibrary(ctx, curator, "HX7200", 1))[0].Own
	class := must(u.Condition.MaintenanceClasses(ctx, curator))[0]
	weighed := unknowns.IdentificationInput{Hypotheses: []identification.Hypothesis{{ID: 1, Text: "a clock"}}}
	lead := arrivals.LotItemInput{Kind: "part", Title: "Lead"}
	hypothesis, err := u.Unknowns.WeighIdentification(ctx, curator, u.board, 0, weighed)
	require.NoError(t, err)
	supply, rung := must(u.Power.Power(ctx, curator, u.machine)).Supplies[0],
		must(u.Power.Power(ctx, curator, u.machine)).Rungs[0]
	applied := must(u.Power.Power(ctx, curator, u.machine)).Ups[0]
	job := must(u.Work.Treatment(ctx, curator, u.machine)).Jobs[0]
	cells := must(u.Sheets.TakeOverSheet(ctx, curator, titled.ID, "== Clock card\nBT1 battery NiCd 3.6V"))[0]
	drawer := must(u.Parts.ListStock(ctx, curator, "", 0, 1)).Parts[0]
	order := must(u.Parts.Orders(ctx, curator))[0]
	want, offer := must(u.Wanted.Wants(ctx, curator))[0], must(u.Wanted.Offers(ctx, curator))[0]
	symptom := must(u.Diagnosis.Diagnoses(ctx, curator, u.machine)).Diagnoses[0]
	configuration := must(u.Setup.Setup(ctx, curator, u.machine)).Configurations[0]
	credential := must(u.Setup.Credentials(ctx, curator, u.machine)).Credentials[0]
	const old = 99 // no record has been changed so often

	card := must(u.Library.KnownAssemblies(ctx, curator, "", 0, 1)).Known[0]
	conflicts := map[string]func() error{
		"accounts.ChangeAccount": func() error {
			return second(u.Accounts.ChangeAccount(ctx, curator, account.ID, old,
				accounts.AccountInput{Name: "B", Role: action.Viewer}))
		},
		"arrivals.AddLotItem": func() error { return second(u.Arrivals.AddLotItem(ctx, curator, u.lot, old, lead)) },
		"arrivals.ChangeLotItem": func() error {
			return second(u.Arrivals.ChangeLotItem(ctx, curator, u.lot, old, item, lead))
		},
		"arrivals.VoidLotItem": func() error {
			_, _, err := u.Arrivals.VoidLotItem(ctx, curator, u.lot, old, item)
			return err
		},
		"arrivals.ItemBecomesMachine": func() error {
			return second(u.Arrivals.ItemBecomesMachine(ctx, curator, u.lot, old, item, machineOf("EH-0077", "", "")))
		},
		"arrivals.ItemIsMachine": func() error {
			return second(u.Arrivals.ItemIsMachine(ctx, curator, u.lot, old, item, u.machine))
		},
		"arrivals.ItemBecomesAssembly": func() error {
			return second(u.Arrivals.ItemBecomesAssembly(ctx, curator, u.lot, old, item, "Store", assemblyOf("Card")))
		},
		"arrivals.ChangeAcquisition": func() error {
			return second(u.Arrivals.ChangeAcquisition(ctx, curator, u.lot, old, lot.AcquisitionInput))
		},
		"arrivals.ChangeCustody": func() error {
			fields := must(u.Bench.Dossier(ctx, curator, u.machine)).Chain.Links[0].CustodyInput
			return second(u.Arrivals.ChangeCustody(ctx, curator, u.told, old, fields))
		},
		"condition.DropReading": func() error { return second(u.Condition.DropReading(ctx, curator, series.ID, old)) },
		"condition.VoidMeasurement": func() error {
			return second(u.Condition.VoidMeasurement(ctx, curator, series.ID, old))
		},
		"power.ChangeRung": func() error {
			return second(u.Power.ChangeRung(ctx, curator, rung.ID, old, rung.Rung))
		},
		"power.ChangeSupply": func() error {
			return second(u.Power.ChangeSupply(ctx, curator, supply.ID, old, supply.SupplyInput))
		},
		"power.SayPart": func() error {
			return second(u.Power.SayPart(ctx, curator, cells.ID, old, power.PartInput{Place: "BT1"}))
		},
		"power.VoidPowerUp": func() error { return second(u.Power.VoidPowerUp(ctx, curator, applied.ID, old)) },
		"power.VoidRung":    func() error { return second(u.Power.VoidRung(ctx, curator, rung.ID, old)) },
		"power.VoidSupply":  func() error { return second(u.Power.VoidSupply(ctx, curator, supply.ID, old)) },
		"parts.BookArrival": func() error {
			return second(u.Parts.BookArrival(ctx, curator, order.ID, old, parts.ArrivalInput{Line: 1, Count: 1}))
		},
		"parts.ChangeOrder": func() error {
			return second(u.Parts.ChangeOrder(ctx, curator, order.ID, old, parts.OrderInput{Supplier: "Reed & Rush",
				Lines: []parts.OrderLineInput{{What: "fuse", Count: 1}}}))
		},
		"parts.ChangeStock": func() error { return second(u.Parts.ChangeStock(ctx, curator, drawer.ID, old, drawer.StockInput)) },
		"diagnosis.Change": func() error {
			return second(u.Diagnosis.Change(ctx, curator, symptom.ID, old, symptom.DiagnosisInput))
		},
		"diagnosis.ChangeLayout": func() error {
			return second(u.Diagnosis.ChangeLayout(ctx, curator, u.machine, old, diagnosis.MemoryLayoutInput{}))
		},
		"setup.Change": func() error {
			return second(u.Setup.Change(ctx, curator, configuration.ID, old, configuration.ConfigurationInput))
		},
		"setup.Void": func() error { return second(u.Setup.Void(ctx, curator, configuration.ID, old)) },
		"setup.ChangeOperatingCard": func() error {
			return second(u.Setup.ChangeOperatingCard(ctx, curator, u.machine, old, setup.OperatingCardInput{}))
		},
		"setup.ChangeMemoryRules": func() error {
			return second(u.Setup.ChangeMemoryRules(ctx, curator, u.machine, old, setup.MemoryRulesInput{}))
		},
		"setup.ChangeBackplane": func() error {
			return second(u.Setup.ChangeBackplane(ctx, curator, u.machine, old, setup.BackplaneInput{}))
		},
		"setup.ChangeCredential": func() error {
			return second(u.Setup.ChangeCredential(ctx, curator, credential.ID, old, credential.CredentialInput, nil))
		},
		"setup.VoidCredential": func() error { return second(u.Setup.VoidCredential(ctx, curator, credential.ID, old)) },
		"diagnosis.Void":       func() error { return second(u.Diagnosis.Void(ctx, curator, symptom.ID, old)) },
		"wanted.ChangeWant":    func() error { return second(u.Wanted.ChangeWant(ctx, curator, want.ID, old, want.WantInput)) },
		"wanted.VoidWant":      func() error { return second(u.Wanted.VoidWant(ctx, curator, want.ID, old)) },
		"wanted.ChangeOffer":   func() error { return second(u.Wanted.ChangeOffer(ctx, curator, offer.ID, old, offer.OfferInput)) },
		"wanted.VoidOffer":     func() error { return second(u.Wanted.VoidOffer(ctx, curator, offer.ID, old)) },
		"wanted.TakeOffer": func() error {
			return second(u.Wanted.TakeOffer(ctx, curator, offer.ID, old, wanted.TakenOffer{}))
		},
		"parts.VoidOrder": func() error { return second(u.Parts.VoidOrder(ctx, curator, order.ID, old)) },
		"parts.VoidStock": func() error { return second(u.Parts.VoidStock(ctx, curator, drawer.ID, old)) },
		"work.ChangeJob":  func() error { return second(u.Work.ChangeJob(ctx, curator, job.ID, old, job.JobInput)) },
		"work.FinishJob": func() error {
			return second(u.Work.FinishJob(ctx, curator, job.ID, old, work.FinishInput{}))
		},
		"upkeep.Answer": func() error {
			return second(u.Upkeep.Answer(ctx, curator, u.round, 1, old, upkeep.AnswerInput{How: "did"}))
		},
		"upkeep.ChangePlan": func() error {
			return second(u.Upkeep.ChangePlan(ctx, curator, u.plan, old, upkeep.PlanInput{On: "2026-12-01", What: "x"}))
		},
		"upkeep.ChangeRule": func() error {
			return second(u.Upkeep.ChangeRule(ctx, curator, u.rule, old, upkeep.RuleInput{Task: "x", Of: "machine"}))
		},
		"upkeep.EndRound": func() error {
			return second(u.Upkeep.EndRound(ctx, curator, u.round, old, upkeep.EndInput{}))
		},
		"upkeep.VoidPlan": func() error { return second(u.Upkeep.VoidPlan(ctx, curator, u.plan, old)) },
		"upkeep.VoidRule": func() error { return second(u.Upkeep.VoidRule(ctx, curator, u.rule, old)) },
		"work.Choose": func() error {
			return second(u.Work.Choose(ctx, curator, u.machine, "aim", old, work.ChoiceInput{Option: "run",
				Why: "asked"}))
		},
		"work.ProveJob": func() error {
			return second(u.Work.ProveJob(ctx, curator, job.ID, old, work.ProofInput{Passed: true}))
		},
		"work.VoidJob": func() error { return second(u.Work.VoidJob(ctx, curator, job.ID, old)) },
		"work.WorkOnJob": func() error {
			return second(u.Work.WorkOnJob(ctx, curator, job.ID, old, work.WorkInput{State: "in hand"}))
		},
		"sharing.EndService": func() error {
			serving := must(u.Sharing.ServedBy(ctx, curator, u.board))[0]
			return second(u.Sharing.EndService(ctx, curator, serving.ID, old))
		},
		"signs.VoidSighting": func() error {
			seen := must(u.Signs.Signs(ctx, curator, u.machine)).Seen[0]
			return second(u.Signs.VoidSighting(ctx, curator, seen.ID, old))
		},
		"console.Void": func() error {
			said := must(u.Console.Console(ctx, curator, u.machine)).Captures[0]
			return second(u.Console.Void(ctx, curator, said.ID, old))
		},
		"condition.VoidFinding": func() error {
			found := must(u.Condition.Condition(ctx, curator, u.machine)).Findings[0]
			return second(u.Condition.VoidFinding(ctx, curator, found.ID, old))
		},
		"condition.EndSurvey": func() error {
			return second(u.Condition.EndSurvey(ctx, curator, survey.ID, old, "", ""))
		},
		"condition.JudgeItem": func() error {
			judged := appcondition.JudgedItem{Inspection: appcondition.Inspection{Coverage: condition.Inspected}}
			judge := func() error {
				return second(u.Condition.JudgeItem(ctx, curator, survey.ID, survey.Version, "plastics", judged))
			}
			if err := judge(); err != nil {
				return err
			}
			return judge()
		},
		"condition.ChangeMaintenanceClass": func() error {
			return second(u.Condition.ChangeMaintenanceClass(ctx, curator, old, class.Class))
		},
		"condition.TurnAdjuster": func() error {
			return second(u.Condition.TurnAdjuster(ctx, curator, adjuster.ID, old, "one o'clock", "too wide"))
		},
		"files.ChangeAttachment": func() error {
			one := must(u.Files.Attachment(ctx, curator, u.picture))
			return second(u.Files.ChangeAttachment(ctx, curator, u.picture, old, one.AttachmentInput))
		},
		"files.VoidAttachment": func() error {
			return second(u.Files.VoidAttachment(ctx, curator, u.picture, old))
		},
		"files.Annotate": func() error {
			return second(u.Files.Annotate(ctx, curator, u.picture, old, u.board, annotation.Annotation{}, nil))
		},
		"inventory.ChangeMachine": func() error {
			return second(u.Inventory.ChangeMachine(ctx, curator, u.machine, old, machineOf("EH-0001", "", "")))
		},
		"inventory.MoveMachine": func() error {
			return second(u.Inventory.MoveMachine(ctx, curator, u.machine, old,
				inventory.MachineMove{To: "place", Place: "Shed"}))
		},
		"inventory.ChangeAssembly": func() error {
			return second(u.Inventory.ChangeAssembly(ctx, curator, u.board, old, assemblyOf("Card")))
		},
		"inventory.MoveAssembly": func() error {
			return second(u.Inventory.MoveAssembly(ctx, curator, u.board, old,
				inventory.Move{To: "place", Place: "Shed"}))
		},
		"inventory.TellPastFitting": func() error {
			return second(u.Inventory.TellPastFitting(ctx, curator, u.board, old,
				inventory.PastFitting{MachineID: u.machine, Until: "1990"}))
		},
		"inventory.VoidAssembly": func() error {
			return second(u.Inventory.VoidAssembly(ctx, curator, u.board, old))
		},
		"inventory.ChangeCollection": func() error {
			now := must(u.Inventory.Collection(ctx, curator))
			return second(u.Inventory.ChangeCollection(ctx, curator, old, now.CollectionInput))
		},
		"library.ChangeMaker": func() error {
			return second(u.Library.ChangeMaker(ctx, curator, maker.ID, old, maker.MakerInput))
		},
		"library.ChangeKnown": func() error {
			return second(u.Library.ChangeKnown(ctx, curator, card.ID, old, card.KnownInput))
		},
		"library.ChangeModel": func() error {
			return second(u.Library.ChangeModel(ctx, curator, model.ID, old, model.ModelInput))
		},
		"library.ChangeType": func() error {
			return second(u.Library.ChangeType(ctx, curator, ownType.ID, old, ownType.OwnTypeInput))
		},
		"people.ChangeParty": func() error {
			return second(u.People.ChangeParty(ctx, curator, party.ID, old, party.PartyInput))
		},
		"people.ChangePersonalData": func() error {
			return second(u.People.ChangePersonalData(ctx, curator, personal.ID, old, personal.PersonalDataInput))
		},
		"people.DecideMention": func() error { return u.People.DecideMention(ctx, curator, mention.ID, old, true) },
		"roms.NameRom": func() error {
			return second(u.Roms.NameRom(ctx, curator, read.Reads[0].SHA256, old, roms.RomInput{Name: "Monitor"}))
		},
		"teardown.ChangeConnector": func() error {
			return second(u.Teardown.ChangeConnector(ctx, curator, connector.ID, old, plug("J6")))
		},
		"teardown.PlugConnector": func() error {
			return second(u.Teardown.PlugConnector(ctx, curator, connector.ID, old, true))
		},
		"teardown.VoidConnector": func() error {
			return second(u.Teardown.VoidConnector(ctx, curator, connector.ID, old))
		},
		"teardown.ChangeProcedure": func() error {
			return second(u.Teardown.ChangeProcedure(ctx, curator, procedure.ID, old, teardown.ProcedureInput{
				Maker: "Tarn & Vole", Model: "Meridian 2", Title: "Down", Body: "Lid"}))
		},
		"teardown.ChangeStep": func() error {
			return second(u.Teardown.ChangeStep(ctx, curator, step.ID, old, teardown.StepInput{Line: "Cover"}))
		},
		"teardown.VoidStep": func() error { return second(u.Teardown.VoidStep(ctx, curator, step.ID, old)) },
		"teardown.ReverseStep": func() error {
			return second(u.Teardown.ReverseStep(ctx, curator, step.ID, old,
				teardown.Reversed{Reversal: coreteardown.Reversal{State: coreteardown.Back}}))
		},
		"unknowns.AnswerQuestion": func() error {
			return second(u.Unknowns.AnswerQuestion(ctx, curator, question.ID, old,
				unknowns.Answer{Answer: "worn", Source: "seen"}))
		},
		"unknowns.ChangeQuestion": func() error {
			return second(u.Unknowns.ChangeQuestion(ctx, curator, question.ID, old, "why else", ""))
		},
		"unknowns.WeighIdentification": func() error {
			return second(u.Unknowns.WeighIdentification(ctx, curator, u.board, old, weighed))
		},
	}
	named := []string{}
	for name := range conflicts {
		named = append(named, name)
	}
	slices.Sort(named)
	require.Equal(t, versionedActions(t), named)
	require.NotEmpty(t, hypothesis.Hypotheses)
	for _, name := range named {
		before := u.state()
		err := conflicts[name]()
		var stale *action.Stale
		require.ErrorAs(t, err, &stale, name)
		require.Contains(t, stale.Error(), "was changed by somebody else", name)
		newer, err := json.Marshal(stale.Newer)
		require.NoError(t, err)
		require.True(t, strings.HasPrefix(string(newer), "{") && len(newer) > 10, "%s: %s", name, newer)
		if name != "condition.JudgeItem" { // which was done once before
			require.Equal(t, before, u.state(), name)
		}
	}
}
