package app_test

import (
	"bytes"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"image"
	"image/png"
	"maps"
	"regexp"
	"slices"
	"strconv"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	appcondition "frugalheron/app/condition"
	"frugalheron/app/console"
	"frugalheron/app/diagnosis"
	"frugalheron/app/evidence"
	"frugalheron/app/files"
	"frugalheron/app/history"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/parts"
	"frugalheron/app/people"
	"frugalheron/app/power"
	"frugalheron/app/roms"
	"frugalheron/app/setup"
	"frugalheron/app/sharing"
	appsigns "frugalheron/app/signs"
	"frugalheron/app/teardown"
	"frugalheron/app/upkeep"
	"frugalheron/app/wanted"
	"frugalheron/app/work"
	"frugalheron/core/sign"
	"frugalheron/store/blobs"
)

// undoables is a machine with something of everything that can be taken back.
type undoables struct {
	*app.App
	machine, other, board, lot, said, told, picture, read, log int64
	rule, round, plan                                          int64

	empty int64 // a log without steps, of another machine
	n     int   // counts what is typed, so that nothing is typed twice
}

func newUndoables(t *testing.T) *undoables {
	_, actions := newApp(t)
	kept, err := blobs.Open(ctx, t.TempDir())
	require.NoError(t, err)
	actions.WithBlobs(kept)
	u := &undoables{App: actions}
	machine := must(actions.Inventory.CreateMachine(ctx, curator,
		inventory.MachineInput{Accession: "EH-0001", Name: "Meridian", Place: "Loft"}))
	u.machine = machine.ID
	u.board = must(actions.Sheets.TakeOverSheet(ctx, curator, machine.ID,
		"== Main board\nU1-U8 4164-15\nU9 27128-25 8533 @socket\nU10 HX7200"))[0].ID
	u.lot = must(actions.Arrivals.Receive(ctx, curator, arrivals.AcquisitionInput{Title: "Lot", Method: "gift"},
		[]arrivals.LotItemInput{{Kind: "part", Title: "Lead"}, {Kind: "part", Title: "Box"}})).ID
	u.said = must(actions.Evidence.StateEvidence(ctx, curator, machine.ID,
		evidence.StatementInput{Attribute: "memory", Value: "64K", Citation: evidence.Citation{Kind: "firmware"}})).ID
	u.told = must(actions.Arrivals.TellCustody(ctx, curator, machine.ID, arrivals.CustodyInput{
		Role: "used-by", Who: "the bath", Dates: "1984/1990", Citation: evidence.Citation{Kind: "recalled"}})).ID
	var photo bytes.Buffer
	require.NoError(t, png.Encode(&photo, image.NewGray(image.Rect(0, 0, 8, 8))))
	owner := files.Owner{MachineID: &machine.ID}
	u.picture = must(actions.Files.Attach(ctx, curator, owner, "photo.png", photo.Bytes())).ID
	must(actions.Roms.AddRomFile(ctx, curator, u.board, roms.RomReading{Designator: "U9"}, "u9.bin", monitor))
	u.read = must(actions.Roms.Roms(ctx, curator, machine.ID))[0].Reads[0].ID
	must(actions.Teardown.MapConnector(ctx, curator, machine.ID, plug("J5")))
	u.log = must(actions.Teardown.StartTeardown(ctx, curator, machine.ID,
		teardown.StartedTeardown{Purpose: "to look", Rows: 2, Columns: 2})).ID
	must(actions.Teardown.AddStep(ctx, curator, u.log, teardown.StepInput{Line: "Lid"}))
	other := must(actions.Inventory.CreateMachine(ctx, curator,
		inventory.MachineInput{Accession: "EH-0002", Name: "Lantern"}))
	u.other = other.ID
	u.rule = must(actions.Upkeep.AddRule(ctx, curator, upkeep.RuleInput{Task: "Look over", EveryMonths: 6,
		Of: "machine"})).ID
	u.round = must(actions.Upkeep.BeginRound(ctx, curator, upkeep.RoundInput{RuleID: u.rule})).ID
	u.plan = must(actions.Upkeep.AddPlan(ctx, curator, upkeep.PlanInput{On: curator.Today(), What: "Fetch a lead"})).ID
	must(actions.Sharing.Serve(ctx, curator, u.board, sharing.ServiceInput{MachineID: other.ID, As: "monitor"}))
	u.empty = must(actions.Teardown.StartTeardown(ctx, curator, other.ID,
		teardown.StartedTeardown{Purpose: "to look", Rows: 2, Columns: 2})).ID
	must(actions.Condition.NoteFinding(ctx, curator, machine.ID, appcondition.NotedFinding{Subsystem: "plastics",
		ObservedFinding: appcondition.ObservedFinding{New: &appcondition.FindingInput{Kind: "cracked"},
			Severity: "watch"}}))
	must(actions.Condition.Measure(ctx, curator, machine.ID, appcondition.MeasurementInput{Line: "+5 4.93 V"}))
	must(actions.Power.AddSupply(ctx, curator, machine.ID, power.SupplyInput{Name: "built in", Kind: "mains"}))
	ladder := must(actions.Power.BuildLadder(ctx, curator, machine.ID)).Rungs
	must(actions.Power.PowerUp(ctx, curator, machine.ID, power.UpInput{RungIDs: []int64{ladder[0].ID},
		Result: "as-expected", DecidedBy: "Ottilie", Why: "to see it once"}))
	must(actions.Work.AddJob(ctx, curator, machine.ID, work.JobInput{Title: "clean it"}))
	must(actions.Parts.AddStock(ctx, curator, parts.StockInput{What: "fuse 2A", Count: 4}))
	must(actions.Parts.AddOrder(ctx, curator, parts.OrderInput{Supplier: "Reed & Rush",
		Lines: []parts.OrderLineInput{{What: "fuse 4A", Count: 10}}}))
	must(actions.Signs.SeeSign(ctx, curator, machine.ID, appsigns.SightingInput{Kind: sign.Code, Shown: "E4"}))
	must(actions.Wanted.AddWant(ctx, curator, wanted.WantInput{What: "handbook"}))
	must(actions.Wanted.AddOffer(ctx, curator, wanted.OfferInput{Title: "a box of cards"}))
	must(actions.Console.KeepText(ctx, curator, machine.ID, console.TextInput{Text: "64K OK"}))
	must(actions.Diagnosis.Begin(ctx, curator, machine.ID, diagnosis.DiagnosisInput{Symptom: "no picture"}))
	must(actions.Setup.Keep(ctx, curator, machine.ID, setup.ConfigurationInput{Title: "As found"}))
	must(actions.Setup.PutAway(ctx, curator, machine.ID, setup.CredentialInput{What: "sign-on"}, "tide gauge"))
	must(actions.People.AddParty(ctx, curator,
		people.PartyInput{Name: "Rose", Kind: "person", Private: true, Role: "a neighbour"}))
	must(actions.QuickEntry.Enter(ctx, curator, machine.ID, 0, 0, "note the voltage rose"))
	must(actions.Library.NameType(ctx, curator, library.OwnTypeInput{Number: "HX7200", Function: "timer"}))
	must(actions.Library.NameKnown(ctx, curator, library.KnownInput{Name: "Memory card", Numbers: "4424-1"}))
	return u
}

// word is another one each time.
func (u *undoables) word(like string) string {
	u.n++
	return fmt.Sprintf("%s %d", like, u.n)
}

// acts are what can be taken back, by the key of the event that it leaves. One that cannot be done now is refused.
func (u *undoables) acts() map[string]func() error {
	machine := func() inventory.Machine { return must(u.Inventory.Machine(ctx, curator, u.machine)) }
	board := func() inventory.Assembly { return must(u.Inventory.Assembly(ctx, curator, u.board)) }
	custody := func() arrivals.Custody {
		chain := must(u.Bench.Dossier(ctx, curator, u.machine)).Chain
		return append(chain.Links, chain.Retracted...)[0].Custody
	}
	ownType := func() *library.OwnType {
		if found := must(u.Library.SearchLibrary(ctx, curator, "HX7200", 1)); len(found) > 0 {
			return found[0].Own
		}
		return nil
	}
	card := func() *library.KnownAssembly {
		if found := must(u.Library.KnownAssemblies(ctx, curator, "4424", 0, 1)).Known; len(found) > 0 {
			return &found[0]
		}
		return nil
	}
	missing := action.Reject("id", "there is none now")
	return map[string]func() error{
		"change machine": func() error {
			fields := machine().MachineInput
			fields.Maker, fields.Serial = "Tarn & Vole", u.word("TV1-00417")
			return second(u.Inventory.ChangeMachine(ctx, curator, u.machine, machine().Version, fields))
		},
		"move machine": func() error {
			return second(u.Inventory.MoveMachine(ctx, curator, u.machine, machine().Version,
				inventory.MachineMove{To: "transit", BoundFor: u.word("the fair")}))
		},
		"rename place": func() error {
			here := machine().Place
			if here == "" {
				return missing
			}
			return second(u.Inventory.RenamePlace(ctx, curator, here, u.word("Attic")))
		},
		"change assembly": func() error {
			fields := board().AssemblyInput
			fields.Title, fields.Serial, fields.Purpose = u.word("Logic board"), "LB-771", "picture"
			return second(u.Inventory.ChangeAssembly(ctx, curator, u.board, board().Version, fields))
		},
		"move assembly": func() error {
			return second(u.Inventory.MoveAssembly(ctx, curator, u.board, board().Version,
				inventory.Move{To: "place", Place: u.word("Store")}))
		},
		"tell past fitting": func() error {
			u.n++
			return second(u.Inventory.TellPastFitting(ctx, curator, u.board, board().Version,
				inventory.PastFitting{MachineID: u.machine, From: fmt.Sprint(1900 + u.n),
					Until: fmt.Sprint(1900 + u.n)}))
		},
		"strike assembly": func() error {
			return second(u.Inventory.VoidAssembly(ctx, curator, u.board, board().Version))
		},
		"save sheet": func() error {
			now := must(u.Sheets.Sheet(ctx, curator, u.board))
			return second(u.Sheets.SaveSheet(ctx, curator, u.board, now.N, now.Body+"\n# "+u.word("looked at again")))
		},
		"note": func() error {
			return second(u.QuickEntry.Enter(ctx, curator, u.machine, 0, 0, "note "+u.word("hums")))
		},
		"withdraw statement": func() error {
			return second(u.Evidence.RetractStatement(ctx, curator, u.said, u.word("misread")))
		},
		"withdraw custody": func() error {
			return second(u.Arrivals.RetractCustody(ctx, curator, u.told, u.word("misread")))
		},
		"change custody": func() error {
			fields := custody().CustodyInput
			fields.Dates, fields.Who = "1985/1986", u.word("the theatre")
			return second(u.Arrivals.ChangeCustody(ctx, curator, u.told, custody().Version, fields))
		},
		"change lot": func() error {
			now := must(u.Arrivals.Lot(ctx, curator, u.lot))
			fields := now.AcquisitionInput
			fields.Note = u.word("two crates")
			return second(u.Arrivals.ChangeAcquisition(ctx, curator, u.lot, now.Version, fields))
		},
		"strike lot item": func() error {
			now := must(u.Arrivals.Lot(ctx, curator, u.lot))
			if len(now.Things) == 0 {
				return missing
			}
			_, _, err := u.Arrivals.VoidLotItem(ctx, curator, u.lot, now.Version, now.Things[0].ID)
			return err
		},
		"strike attachment": func() error {
			one, err := u.Files.Attachment(ctx, curator, u.picture)
			if err != nil {
				return err
			}
			return second(u.Files.VoidAttachment(ctx, curator, u.picture, one.Version))
		},
		"strike read": func() error { return second(u.Roms.VoidRead(ctx, curator, u.read)) },
		"strike connector": func() error {
			now := must(u.Teardown.Wiring(ctx, curator, u.machine))
			if len(now.Connectors) == 0 {
				return missing
			}
			return second(u.Teardown.VoidConnector(ctx, curator, now.Connectors[0].ID, now.Connectors[0].Version))
		},
		"strike step": func() error {
			now := must(u.Teardown.Teardown(ctx, curator, u.log))
			if len(now.Steps) == 0 {
				return missing
			}
			return second(u.Teardown.VoidStep(ctx, curator, now.Steps[0].ID, now.Steps[0].Version))
		},
		"end teardown": func() error { return second(u.Teardown.EndTeardown(ctx, curator, u.empty)) },
		"find": func() error {
			return second(u.QuickEntry.Enter(ctx, curator, u.machine, 0, 0, u.word("hinge")+" cracked"))
		},
		"strike finding": func() error {
			now := must(u.Condition.Condition(ctx, curator, u.machine))
			if len(now.Findings) == 0 {
				return missing
			}
			return second(u.Condition.VoidFinding(ctx, curator, now.Findings[0].ID, now.Findings[0].Version))
		},
		"measure": func() error {
			u.n++
			return second(u.Condition.Measure(ctx, curator, u.machine,
				appcondition.MeasurementInput{Line: fmt.Sprintf("+12 12.%d V", u.n)}))
		},
		"strike measurement": func() error {
			now := must(u.Condition.Measurements(ctx, curator, u.machine))
			if len(now) == 0 {
				return missing
			}
			return second(u.Condition.VoidMeasurement(ctx, curator, now[0].ID, now[0].Version))
		},
		"keep console text": func() error {
			return second(u.Console.KeepText(ctx, curator, u.machine, console.TextInput{Text: u.word("64K OK")}))
		},
		"strike console text": func() error {
			now := must(u.Console.Console(ctx, curator, u.machine)).Captures
			if len(now) == 0 {
				return missing
			}
			return second(u.Console.Void(ctx, curator, now[0].ID, now[0].Version))
		},
		"see sign": func() error {
			return second(u.Signs.SeeSign(ctx, curator, u.machine,
				appsigns.SightingInput{Kind: sign.Screen, Shown: u.word("BANK")}))
		},
		"serve": func() error {
			return second(u.Sharing.Serve(ctx, curator, u.board,
				sharing.ServiceInput{MachineID: u.other, As: u.word("keyboard")}))
		},
		"void job": func() error {
			now := must(u.Work.Treatment(ctx, curator, u.machine)).Jobs
			if len(now) == 0 {
				return missing
			}
			return second(u.Work.VoidJob(ctx, curator, now[0].ID, now[0].Version))
		},
		"void upkeep rule": func() error {
			now := must(u.Upkeep.Rules(ctx, curator))
			if len(now) == 0 {
				return missing
			}
			return second(u.Upkeep.VoidRule(ctx, curator, now[0].ID, now[0].Version))
		},
		"void plan": func() error {
			for _, line := range must(u.Upkeep.Diary(ctx, curator, "", 1))[0].Lines {
				if line.Plan != nil {
					return second(u.Upkeep.VoidPlan(ctx, curator, line.Plan.ID, line.Plan.Version))
				}
			}
			return missing
		},
		"answer stop": func() error {
			for _, round := range must(u.Upkeep.Rounds(ctx, curator)) {
				for _, stop := range must(u.Upkeep.Round(ctx, curator, round.ID)).RoundsOf {
					if round.IsOpen && stop.Deed == nil {
						return second(u.Upkeep.Answer(ctx, curator, round.ID, stop.N, 0,
							upkeep.AnswerInput{How: "seen"}))
					}
				}
			}
			return missing
		},
		"end round": func() error {
			for _, round := range must(u.Upkeep.Rounds(ctx, curator)) {
				if round.IsOpen {
					return second(u.Upkeep.EndRound(ctx, curator, round.ID, round.Version, upkeep.EndInput{Minutes: 5}))
				}
			}
			return missing
		},
		"strike diagnosis": func() error {
			now := must(u.Diagnosis.Diagnoses(ctx, curator, u.machine)).Diagnoses
			if len(now) == 0 {
				return missing
			}
			return second(u.Diagnosis.Void(ctx, curator, now[0].ID, now[0].Version))
		},
		"strike configuration": func() error {
			now := must(u.Setup.Setup(ctx, curator, u.machine)).Configurations
			if len(now) == 0 {
				return missing
			}
			return second(u.Setup.Void(ctx, curator, now[0].ID, now[0].Version))
		},
		"strike credential": func() error {
			now := must(u.Setup.Credentials(ctx, curator, u.machine)).Credentials
			if len(now) == 0 {
				return missing
			}
			return second(u.Setup.VoidCredential(ctx, curator, now[0].ID, now[0].Version))
		},
		"strike want": func() error {
			now := must(u.Wanted.Wants(ctx, curator))
			if len(now) == 0 {
				return missing
			}
			return second(u.Wanted.VoidWant(ctx, curator, now[0].ID, now[0].Version))
		},
		"strike offer": func() error {
			now := must(u.Wanted.Offers(ctx, curator))
			if len(now) == 0 {
				return missing
			}
			return second(u.Wanted.VoidOffer(ctx, curator, now[0].ID, now[0].Version))
		},
		"void stock": func() error {
			now := must(u.Parts.ListStock(ctx, curator, "", 0, 1)).Parts
			if len(now) == 0 {
				return missing
			}
			return second(u.Parts.VoidStock(ctx, curator, now[0].ID, now[0].Version))
		},
		"void order": func() error {
			now := must(u.Parts.Orders(ctx, curator))
			if len(now) == 0 {
				return missing
			}
			return second(u.Parts.VoidOrder(ctx, curator, now[0].ID, now[0].Version))
		},
		"power up": func() error {
			ladder := must(u.Power.Power(ctx, curator, u.machine)).Rungs
			if len(ladder) == 0 {
				return missing
			}
			return second(u.Power.PowerUp(ctx, curator, u.machine, power.UpInput{RungIDs: []int64{ladder[0].ID},
				Result: "not", Seen: u.word("no lamp"), DecidedBy: "Ottilie", Why: "to hear it"}))
		},
		"void power-up": func() error {
			now := must(u.Power.Power(ctx, curator, u.machine)).Ups
			if len(now) == 0 {
				return missing
			}
			return second(u.Power.VoidPowerUp(ctx, curator, now[0].ID, now[0].Version))
		},
		"void rung": func() error {
			now := must(u.Power.Power(ctx, curator, u.machine)).Rungs
			if len(now) == 0 {
				return missing
			}
			return second(u.Power.VoidRung(ctx, curator, now[0].ID, now[0].Version))
		},
		"void supply": func() error {
			now := must(u.Power.Power(ctx, curator, u.machine)).Supplies
			if len(now) == 0 {
				return missing
			}
			return second(u.Power.VoidSupply(ctx, curator, now[0].ID, now[0].Version))
		},
		"end service": func() error {
			now := must(u.Sharing.ServedBy(ctx, curator, u.board))
			if len(now) == 0 {
				return missing
			}
			return second(u.Sharing.EndService(ctx, curator, now[0].ID, now[0].Version))
		},
		"strike sighting": func() error {
			now := must(u.Signs.Signs(ctx, curator, u.machine)).Seen
			if len(now) == 0 {
				return missing
			}
			return second(u.Signs.VoidSighting(ctx, curator, now[0].ID, now[0].Version))
		},
		"decide mention": func() error {
			now := must(u.People.Mentions(ctx, curator))
			if len(now) == 0 {
				return missing
			}
			return u.People.DecideMention(ctx, curator, now[0].ID, now[0].Version, false)
		},
		"name type": func() error {
			u.n++
			return second(u.Library.NameType(ctx, curator,
				library.OwnTypeInput{Number: fmt.Sprintf("HX8%03d", u.n), Function: "adder"}))
		},
		"change type": func() error {
			now := ownType()
			if now == nil {
				return missing
			}
			fields := now.OwnTypeInput
			fields.Function = u.word("clock")
			return second(u.Library.ChangeType(ctx, curator, now.ID, now.Version, fields))
		},
		"forget type": func() error {
			now := ownType()
			if now == nil {
				return missing
			}
			return second(u.Library.ForgetType(ctx, curator, now.ID))
		},
		"name known assembly": func() error {
			return second(u.Library.NameKnown(ctx, curator,
				library.KnownInput{Name: u.word("Disk card"), Numbers: "4430"}))
		},
		"change known assembly": func() error {
			now := card()
			if now == nil {
				return missing
			}
			fields := now.KnownInput
			fields.Note = u.word("seen twice")
			return second(u.Library.ChangeKnown(ctx, curator, now.ID, now.Version, fields))
		},
		"strike known assembly": func() error {
			now := card()
			if now == nil {
				return missing
			}
			return second(u.Library.StrikeKnown(ctx, curator, now.ID))
		},
	}
}

// unstable is what differs after all was taken back: versions and times, and the ids of what was made anew.
var unstable = regexp.MustCompile(
	`"(version|updatedAt|at|endedAt|revision)":("[^"]*"|\d+|null),?|"own":\{"id":\d+,|"answer":"[A-Z2-7]{26}",?`)

// state is all that anybody sees of it but the history.
func (u *undoables) state() string {
	all := []any{
		must(u.Inventory.Machine(ctx, curator, u.machine)), must(u.Sheets.Contents(ctx, curator, u.machine)),
		must(u.Bench.Dossier(ctx, curator, u.machine)), must(u.Arrivals.Lot(ctx, curator, u.lot)),
		must(u.Files.Attachments(ctx, curator, files.Owner{MachineID: &u.machine}, 0, 10)),
		must(u.Inventory.ListMachines(ctx, curator, inventory.MachineList{Limit: 10})),
		must(u.Inventory.ListLoose(ctx, curator, "", 0, 10)), must(u.Inventory.Fittings(ctx, curator, u.board)),
		must(u.Roms.Roms(ctx, curator, u.machine)),
		must(u.Teardown.Wiring(ctx, curator, u.machine)), must(u.Teardown.Teardown(ctx, curator, u.empty)),
		must(u.Teardown.OpenedUp(ctx, curator, u.machine)),
		must(u.Condition.Condition(ctx, curator, u.machine)), must(u.Condition.Measurements(ctx, curator, u.machine)),
		must(u.Signs.Signs(ctx, curator, u.machine)), must(u.Console.Console(ctx, curator, u.machine)).Captures,
		must(u.Diagnosis.Diagnoses(ctx, curator, u.machine)).Diagnoses,
		must(u.Setup.Setup(ctx, curator, u.machine)).Configurations,
		must(u.Setup.Credentials(ctx, curator, u.machine)).Credentials,
		must(u.Sharing.ServedBy(ctx, curator, u.board)), must(u.Wanted.Wants(ctx, curator)),
		must(u.Wanted.Offers(ctx, curator)),
		must(u.Power.Power(ctx, curator, u.machine)), must(u.Work.Treatment(ctx, curator, u.machine)),
		must(u.Parts.ListStock(ctx, curator, "", 0, 9)).Parts, must(u.Parts.Orders(ctx, curator)),
		must(u.Upkeep.Rules(ctx, curator)), must(u.Upkeep.Rounds(ctx, curator)),
		must(u.Upkeep.OfMachine(ctx, curator, u.machine)), must(u.Upkeep.Diary(ctx, curator, "", 1)),
		must(u.People.Mentions(ctx, curator)),
		must(u.Library.SearchLibrary(ctx, curator, "", 50)),
		must(u.Library.KnownAssemblies(ctx, curator, "", 0, 50)),
		must(u.Unknowns.Unknowns(ctx, curator, u.machine)).Open,
		must(u.Bench.ReckonMachine(ctx, curator, u.machine, nil)),
	}
	encoded, err := json.Marshal(all)
	if err != nil {
		panic(err)
	}
	return unstable.ReplaceAllString(string(encoded), "")
}

// newest is the event that somebody is offered first to take back.
func (u *undoables) newest() history.EventView {
	return must(u.History.History(ctx, curator, 0, 0, 1)).Events[0]
}

// Whatever can be taken back leaves everything as it was before, but for versions and the history, which tells both;
// once is enough, and not everybody may. A kind of event that can be undone and does not stand here fails.
func TestWhatIsTakenBackLeavesAllAsItWas(t *testing.T) {
	u := newUndoables(t)
	acts := u.acts()
	require.Equal(t, u.Kernel.Undoable(), slices.Sorted(maps.Keys(acts)))
	for _, name := range slices.Sorted(maps.Keys(acts)) {
		before := u.state()
		require.NoError(t, acts[name](), name)
		event := u.newest()
		require.NotEmpty(t, event.MayUndo, "%s left %s", name, event.What)
		if name != "note" { // it stands in the history alone
			require.NotEqual(t, before, u.state(), name)
		}
		err := u.History.Undo(ctx, viewer, event.ID)
		require.True(t, errors.Is(err, action.ErrForbidden) || errors.Is(err, action.ErrNotFound), "%s: %v", name, err)
		require.NoError(t, u.History.Undo(ctx, curator, event.ID), name)
		require.Equal(t, before, u.state(), name)
		require.Error(t, u.History.Undo(ctx, curator, event.ID), name)
	}
}

// fewChecks has properties that take long checked so many times.
func fewChecks(t *testing.T, n int) {
	before := flag.Lookup("rapid.checks").Value.String()
	require.NoError(t, flag.Set("rapid.checks", strconv.Itoa(n)))
	t.Cleanup(func() { flag.Set("rapid.checks", before) }) //nolint:errcheck // it was valid before
}

// Several things done one after the other, to one record or to several, and taken back from the last to the first leave
// all as it was, each on its way.
func TestWhatIsDoneIsTakenBackStepByStep(t *testing.T) {
	u := newUndoables(t)
	acts := u.acts()
	names := slices.Sorted(maps.Keys(acts))
	fewChecks(t, 12)
	rapid.Check(t, func(r *rapid.T) {
		type done struct {
			name, before string
			event        int64
		}
		all := []done{}
		for _, name := range rapid.SliceOfN(rapid.SampledFrom(names), 1, 4).Draw(r, "acts") {
			before, last := u.state(), u.newest().ID
			if acts[name]() != nil {
				continue // not now
			}
			if event := u.newest(); event.ID != last && len(event.MayUndo) > 0 {
				all = append(all, done{name, before, event.ID})
			}
		}
		for _, one := range slices.Backward(all) {
			if err := u.History.Undo(ctx, curator, one.event); err != nil {
				r.Fatalf("undo %s: %v", one.name, err)
			}
			if now := u.state(); now != one.before {
				r.Fatalf("%s taken back:\n%s\nwas\n%s", one.name, now, one.before)
			}
		}
	})
}

func machineOf(accession, maker, model string) inventory.MachineInput {
	return inventory.MachineInput{Accession: accession, Name: "Meridian", Maker: maker, Model: model}
}

func assemblyOf(title string) inventory.AssemblyInput {
	return inventory.AssemblyInput{Title: title}
}

// What was done and taken back does not stand in the way; what was taken back and done anew does.
func TestTakingBackGoesOnStepByStep(t *testing.T) {
	_, actions := newApp(t)
	machine := must(actions.Inventory.CreateMachine(ctx, curator, machineOf("EH-1", "", "")))
	rename := func(name string) int64 {
		fields := machineOf("EH-1", "", "")
		fields.Name = name
		now := must(actions.Inventory.Machine(ctx, curator, machine.ID))
		must(actions.Inventory.ChangeMachine(ctx, curator, machine.ID, now.Version, fields))
		return must(actions.History.History(ctx, curator, machine.ID, 0, 1)).Events[0].ID
	}
	undo := func(event int64) int64 {
		require.NoError(t, actions.History.Undo(ctx, curator, event))
		return must(actions.History.History(ctx, curator, machine.ID, 0, 1)).Events[0].ID
	}
	name := func() string { return must(actions.Inventory.Machine(ctx, curator, machine.ID)).Name }
	mayUndo := func() (events []int64) {
		for _, e := range must(actions.History.History(ctx, curator, machine.ID, 0, 50)).Events {
			if len(e.MayUndo) > 0 {
				events = append(events, e.ID)
			}
		}
		return events
	}
	var invalid *action.Invalid
	first, second := rename("Lantern"), rename("Sorter")
	require.ErrorAs(t, actions.History.Undo(ctx, curator, first), &invalid)
	back := undo(second)
	require.Equal(t, []int64{back, first}, mayUndo(), "the one before, or what was just taken back")
	again := undo(back) // done anew
	require.Equal(t, "Sorter", name())
	require.ErrorAs(t, actions.History.Undo(ctx, curator, first), &invalid, "it would be overwritten")
	undo(again)
	require.Equal(t, "Lantern", name())
	third := rename("Terminal")
	require.ErrorAs(t, actions.History.Undo(ctx, curator, first), &invalid)
	undo(third)
	require.Equal(t, "Lantern", name())
}

// A type that was forgotten and is back is the same one: what was done to it before can be taken back, too.
func TestAForgottenTypeIsTheSameAgain(t *testing.T) {
	_, actions := newApp(t)
	event := func() int64 { return must(actions.History.History(ctx, curator, 0, 0, 1)).Events[0].ID }
	named := must(actions.Library.NameType(ctx, curator, library.OwnTypeInput{Number: "HX8100", Function: "adder"}))
	own := *must(actions.Library.SearchLibrary(ctx, curator, named.Number, 1))[0].Own
	fields := own.OwnTypeInput
	fields.Function = "counter"
	must(actions.Library.ChangeType(ctx, curator, own.ID, own.Version, fields))
	changed := event()
	must(actions.Library.ForgetType(ctx, curator, own.ID))
	require.NoError(t, actions.History.Undo(ctx, curator, event()))
	require.NoError(t, actions.History.Undo(ctx, curator, changed))
	now := must(actions.Library.SearchLibrary(ctx, curator, named.Number, 1))[0].Own
	require.Equal(t, own.ID, now.ID)
	require.Equal(t, "adder", now.Function)
}
