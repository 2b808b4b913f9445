package app_test

import (
	"bytes"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	appevidence "frugalheron/app/evidence"
	"frugalheron/app/inventory"
	"frugalheron/app/people"
	"frugalheron/app/roms"
	"frugalheron/core/facts"
	"frugalheron/store/blobs"
)

func known(t *testing.T, actions *app.App, machineID int64, attribute string) appevidence.Known {
	dossier, err := actions.Bench.Dossier(ctx, viewer, machineID)
	require.NoError(t, err)
	for _, k := range dossier.Known {
		if k.Attribute.Key == attribute {
			return k
		}
	}
	t.Fatalf("nothing is known of %s", attribute)
	return appevidence.Known{}
}

func said(attribute, value, kind string) appevidence.StatementInput {
	return appevidence.StatementInput{Attribute: attribute, Value: value,
		Citation: appevidence.Citation{Kind: kind}}
}

// The seller says 128K, the plate nothing, the count of the sheet 64K, the firmware 65536. With a row of
// chips taken out of the sheet it is disputed, and lists say so.
func TestMemoryIsSettledByCountAndFirmware(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{}, "== Main board\nU1-U8 4164-15\n")
	for _, s := range []appevidence.StatementInput{said("memory", "128K", "seller"),
		said("memory", "65536", "firmware")} {
		_, err := actions.Evidence.StateEvidence(ctx, technician, machine.ID, s)
		require.NoError(t, err)
	}
	k := known(t, actions, machine.ID, "memory")
	require.Equal(t, facts.Settled, k.Fact.State)
	require.Equal(t, "64 KB", k.Fact.Now.Value)
	require.Len(t, k.Fact.Now.IDs, 2, "the count and the firmware")
	require.Len(t, k.Fact.Differ, 1)
	require.Equal(t, "the count says 64 KB, the seller 128K", k.Fact.Differ[0].Why)
	listed := func(statements ...string) int {
		page, err := actions.Inventory.ListMachines(ctx, viewer,
			inventory.MachineList{MachineFilters: inventory.MachineFilters{Statements: statements}, Limit: 10})
		require.NoError(t, err)
		return page.Total
	}
	require.Equal(t, 0, listed("disputed"))

	// A draft that is not kept yet is reckoned with, too.
	reckoned, err := actions.Bench.ReckonMachine(ctx, viewer, machine.ID, map[int64]string{board.ID: "U1-U4 4164-15"})
	require.NoError(t, err)
	labels := map[string]string{}
	for _, v := range reckoned.Verdicts {
		labels[v.Label] = v.Value
	}
	require.Equal(t, "1 disputed", labels["Statements"])
	require.Equal(t, "32 KB; disputed", labels["RAM"])

	_, err = actions.Sheets.SaveSheet(ctx, technician, board.ID, 1, "U1-U4 4164-15\n")
	require.NoError(t, err)
	require.Equal(t, facts.Disputed, known(t, actions, machine.ID, "memory").Fact.State)
	require.Equal(t, 1, listed("disputed"))
	page, err := actions.Inventory.ListMachines(ctx, viewer, inventory.MachineList{Limit: 10})
	require.NoError(t, err)
	require.True(t, page.Machines[0].MemoryDisputed)

	// Withdrawing the firmware's statement settles it; undoing that disputes it again.
	var firmware int64
	for _, s := range known(t, actions, machine.ID, "memory").Statements {
		if s.Kind == "firmware" {
			firmware = s.ID
		}
	}
	event, err := actions.Evidence.RetractStatement(ctx, technician, firmware, "read off another machine")
	require.NoError(t, err)
	k = known(t, actions, machine.ID, "memory")
	require.Equal(t, facts.Settled, k.Fact.State)
	require.Len(t, k.Statements, 3)
	require.Equal(t, 0, listed("disputed"))
	require.NoError(t, actions.History.Undo(ctx, technician, event))
	require.Equal(t, 1, listed("disputed"))
}

func TestStatementsThatCannotBeAreRefused(t *testing.T) {
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{}, "== Main board\nU1 7400")
	none, region := int64(99), &appevidence.Region{X: 0.5, Y: 0.5, W: 0.6, H: 0.1}
	for field, s := range map[string]appevidence.StatementInput{
		"value": said("memory", "lots", "label"), "kind": said("memory", "64K", "guess"),
		"attribute": said("", "64K", "label"),
		"statedOn": {Attribute: "memory", Value: "64K",
			Citation: appevidence.Citation{Kind: "label", StatedOn: "1985-13"}},
		"partyId": {Attribute: "memory", Value: "64K",
			Citation: appevidence.Citation{Kind: "seller", PartyID: &none}},
		"pictureId": {Attribute: "memory", Value: "64K",
			Citation: appevidence.Citation{Kind: "label", PictureID: &none}},
		"region": {Attribute: "memory", Value: "64K", Citation: appevidence.Citation{Kind: "label", Region: region}},
	} {
		_, err := actions.Evidence.StateEvidence(ctx, technician, machine.ID, s)
		var invalid *action.Invalid
		require.ErrorAs(t, err, &invalid, field)
		require.Equal(t, field, invalid.Field)
	}
	_, err := actions.Evidence.StateEvidence(ctx, viewer, machine.ID, said("memory", "64K", "label"))
	require.ErrorIs(t, err, action.ErrForbidden)
}

// What the outside tells is evidence by itself, and an identifier that two machines share is pointed out.
func TestTheOutsideTellsAndIdentifiersMeet(t *testing.T) {
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{Serial: "TV2-02218"}, "== Main board\nU1 7400")
	dossier, err := actions.Bench.Dossier(ctx, viewer, machine.ID)
	require.NoError(t, err)
	exterior := dossier.ExteriorID
	sheet := "== rear\nplate 220-240V 50Hz 0.9A earth\nlabel serial \"TV2 02218\"\nlabel asset \"HPO-0031\"\nweight 11.4 kg"
	_, err = actions.Sheets.SaveSheet(ctx, technician, exterior, 0, sheet)
	require.NoError(t, err)
	require.Equal(t, facts.Settled, known(t, actions, machine.ID, "serial").Fact.State)
	require.Equal(t, "220-240 V", known(t, actions, machine.ID, "mains-voltage").Fact.Now.Value)
	spot := known(t, actions, machine.ID, "weight").Statements[0].Spot
	require.Equal(t, exterior, spot.Assembly)
	require.Equal(t, 5, spot.Line)

	// The outside is no board: it is in no sum, export or list of what is fitted, and stays with its machine.
	contents, err := actions.Sheets.Contents(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Len(t, contents, 1)
	exported, err := actions.Bench.ExportSheets(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.NotContains(t, string(exported.Data), "plate")
	var invalid *action.Invalid
	_, err = actions.Inventory.MoveAssembly(ctx, technician, exterior, 1, inventory.Move{To: "place", Place: "Loft"})
	require.ErrorAs(t, err, &invalid)
	_, err = actions.Inventory.VoidAssembly(ctx, technician, exterior, 1)
	require.ErrorAs(t, err, &invalid)
	reckoned, err := actions.Bench.ReckonAssembly(ctx, viewer, exterior,
		map[int64]string{exterior: sheet + "\n== front\nbadge"})
	require.NoError(t, err)
	require.Equal(t, "needs attention", string(reckoned.Stage.State))
	require.True(t, reckoned.Walk[2].LookedAt)
	require.Contains(t, strings.Join(reckoned.Left, "; "), "not looked at: front, left, right, top, underside")

	other, err := actions.Inventory.CreateMachine(ctx, curator,
		inventory.MachineInput{Accession: "EH-0155", Name: "Terminal"})
	require.NoError(t, err)
	_, err = actions.Evidence.StateEvidence(ctx, technician, other.ID, said("asset-tag", "hpo 0031", "seen"))
	require.NoError(t, err)
	meets := func(id int64) []appevidence.SharedIdentifier {
		d, err := actions.Bench.Dossier(ctx, viewer, id)
		require.NoError(t, err)
		return d.SharedIdentifiers
	}
	require.Len(t, meets(machine.ID), 1)
	require.Equal(t, "EH-0155 Terminal", meets(machine.ID)[0].Name)
	decision := appevidence.SharedIdentifierDecision{Key: "HPO0031",
		One:   appevidence.RecordRef{Kind: "machine", ID: other.ID},
		Other: appevidence.RecordRef{Kind: "machine", ID: machine.ID}, Decision: "linked"}
	require.ErrorAs(t, actions.Evidence.DecideSharedIdentifier(ctx, curator, decision), &invalid)
	decision.Reason = "stood on one desk"
	require.NoError(t, actions.Evidence.DecideSharedIdentifier(ctx, curator, decision))
	require.Equal(t, "linked", meets(machine.ID)[0].Decision)
	require.Equal(t, "stood on one desk", meets(other.ID)[0].Reason)
}

func TestTheChainOfCustodyIsKeptAndTakenBack(t *testing.T) {
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{}, "== Main board\nU1 7400")
	office, err := actions.People.AddParty(ctx, curator,
		people.PartyInput{Name: "Harbour pilot office", Kind: "organisation"})
	require.NoError(t, err)
	tell := func(role, who, dates string) arrivals.Custody {
		told, err := actions.Arrivals.TellCustody(ctx, curator, machine.ID,
			arrivals.CustodyInput{Role: role, Who: who, Dates: dates,
				Citation: appevidence.Citation{Kind: "recalled"}})
		require.NoError(t, err)
		return told
	}
	tell("made-by", "Tarn & Vole", "1985")
	sale := tell("sold-to", "a merchant", "1983")
	used, err := actions.Arrivals.TellCustody(ctx, curator, machine.ID,
		arrivals.CustodyInput{Role: "used-by", Dates: "1986 / 1988",
			Citation: appevidence.Citation{Kind: "recalled", PartyID: &office.ID}})
	require.NoError(t, err)
	require.Equal(t, "1986/1988", used.Dates)
	tell("stored-by", "a barn", "1992/2001")
	findings := func() []string {
		d, err := actions.Bench.Dossier(ctx, viewer, machine.ID)
		require.NoError(t, err)
		kinds := []string{}
		for _, f := range d.Chain.Problems {
			kinds = append(kinds, string(f.Kind))
		}
		return kinds
	}
	require.Equal(t, []string{"impossible", "gap"}, findings())
	event, err := actions.Arrivals.RetractCustody(ctx, curator, sale.ID, "hearsay")
	require.NoError(t, err)
	require.Equal(t, []string{"gap"}, findings())
	require.NoError(t, actions.History.Undo(ctx, curator, event))
	fields := used.CustodyInput
	fields.Dates = "1986/1991"
	changed, err := actions.Arrivals.ChangeCustody(ctx, curator, used.ID, used.Version, fields)
	require.NoError(t, err)
	require.Equal(t, []string{"impossible"}, findings())
	_, err = actions.Arrivals.ChangeCustody(ctx, curator, used.ID, used.Version, fields)
	var stale *action.Stale
	require.ErrorAs(t, err, &stale)
	require.Equal(t, changed.Version, stale.Newer.(arrivals.Custody).Version)
	fields.Dates = "1985-W07"
	_, err = actions.Arrivals.ChangeCustody(ctx, curator, used.ID, changed.Version, fields)
	require.ErrorContains(t, err, "1985-02-11/1985-02-17")
	fields.Dates = "1985"
	_, err = actions.Arrivals.TellCustody(ctx, technician, machine.ID, fields)
	require.ErrorIs(t, err, action.ErrForbidden)
}

func TestAMachineMovesAndComesBack(t *testing.T) {
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{Place: "Rope walk, bay 2"},
		"== Main board\nU1 7400")
	where := func() (words []string) {
		d, err := actions.Bench.Dossier(ctx, viewer, machine.ID)
		require.NoError(t, err)
		for _, s := range d.Locations {
			words = append(words, s.Where())
		}
		return words
	}
	require.Equal(t, []string{"Rope walk, bay 2"}, where())
	moved, err := actions.Inventory.MoveMachine(ctx, technician, machine.ID, 1,
		inventory.MachineMove{To: "loan", LentTo: "Saltmarsh Repair Club", Due: "2099-03-01"})
	require.NoError(t, err)
	require.Equal(t, "lent to Saltmarsh Repair Club", moved.Where)
	require.Empty(t, moved.Machine.Place)
	require.NoError(t, actions.History.Undo(ctx, technician, moved.Event))
	require.Equal(t, []string{"Rope walk, bay 2"}, where())
	back, err := actions.Inventory.Machine(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, "Rope walk, bay 2", back.Place)
	moved, err = actions.Inventory.MoveMachine(ctx, technician, machine.ID, back.Version,
		inventory.MachineMove{To: "transit", BoundFor: "the fair"})
	require.NoError(t, err)
	fields := moved.Machine.MachineInput
	fields.Place = "Loft, shelf 1"
	_, err = actions.Inventory.ChangeMachine(ctx, curator, machine.ID, moved.Machine.Version, fields)
	require.NoError(t, err)
	require.Equal(t, []string{"Loft, shelf 1", "on its way to the fair", "Rope walk, bay 2"}, where())
	for field, move := range map[string]inventory.MachineMove{
		"place": {To: "place"}, "lentTo": {To: "loan"}, "due": {To: "loan", LentTo: "x", Due: "1999-01-01"},
		"on":       {To: "place", Place: "y", On: "2099-01-01"},
		"boundFor": {To: "transit"}, "to": {To: "place", Place: "Loft, shelf 1"},
	} {
		_, err := actions.Inventory.MoveMachine(ctx, technician, machine.ID, moved.Machine.Version+1, move)
		var invalid *action.Invalid
		require.ErrorAs(t, err, &invalid, field)
		require.Equal(t, field, invalid.Field)
	}
}

func TestPersonalDataIsDecidedAndDone(t *testing.T) {
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{}, "== Main board\nU1 7400")
	noted, err := actions.People.NotePersonalData(ctx, technician, machine.ID,
		people.PersonalDataInput{Medium: "hard disk", Sort: "letters"})
	require.NoError(t, err)
	stage := func() (string, int) {
		d, err := actions.Bench.Dossier(ctx, viewer, machine.ID)
		require.NoError(t, err)
		return string(d.Stages.Arrive.State), d.Stages.Arrive.Count
	}
	state, count := stage()
	require.Equal(t, "needs attention", state)
	require.Equal(t, 1, count)
	decided := noted.PersonalDataInput
	decided.Decision, decided.DecidedBy = "wipe", "Ottilie Wren"
	_, err = actions.People.ChangePersonalData(ctx, technician, noted.ID, noted.Version, decided)
	require.ErrorIs(t, err, action.ErrForbidden)
	changed, err := actions.People.ChangePersonalData(ctx, curator, noted.ID, noted.Version, decided)
	require.NoError(t, err)
	require.NotNil(t, changed.DecidedOn)
	_, count = stage()
	require.Equal(t, 1, count) // decided, but not carried out
	done := changed.PersonalDataInput
	done.DoneOn = changed.DecidedOn
	_, err = actions.People.ChangePersonalData(ctx, curator, noted.ID, changed.Version, done)
	require.NoError(t, err)
	_, count = stage()
	require.Equal(t, 0, count)
}

// What the parts and the lab tell takes part in the evidence: their date codes say when a machine was built, and what
// repeats in a chip explains what somebody counted without it.
func TestPartsAndContentsAreEvidence(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{},
		"== Main board\nU1 7400 8530\nU2 7402 8531\nU3 7404 8532\nU9 27128 8533 @socket\n== Disk card\nU4 2732 8534 for:card")
	kept, err := blobs.Open(ctx, t.TempDir())
	require.NoError(t, err)
	actions.WithBlobs(kept)
	half := bytes.Repeat([]byte("Tarn & Vole monitor 1.1 "), 400)[:8192]
	_, err = actions.Roms.AddRomFile(ctx, technician, board.ID, roms.RomReading{Designator: "U9"}, "u9.bin",
		append(half, half...))
	require.NoError(t, err)
	_, err = actions.Evidence.StateEvidence(ctx, technician, machine.ID, said("rom", "12K", "document"))
	require.NoError(t, err)
	rom := known(t, actions, machine.ID, "rom")
	require.Equal(t, facts.Settled, rom.Fact.State)
	require.Equal(t, []string{"what repeats in Main board, U9"}, rom.Fact.Explanations[0].Blocks)
	// With the chip of the card read, too, a claim without either is explained by both.
	card, err := actions.Sheets.Contents(ctx, technician, machine.ID)
	require.NoError(t, err)
	_, err = actions.Roms.AddRomFile(ctx, technician, card[1].ID, roms.RomReading{Designator: "U4"}, "u4.bin",
		half[1:4097])
	require.NoError(t, err)
	_, err = actions.Evidence.StateEvidence(ctx, technician, machine.ID, said("rom", "8K", "recalled"))
	require.NoError(t, err)
	for _, e := range known(t, actions, machine.ID, "rom").Fact.Explanations {
		if len(e.Blocks) == 2 {
			require.Equal(t, []string{"what repeats in Main board, U9", "Disk card, U4"}, e.Blocks)
		}
	}
	require.Len(t, known(t, actions, machine.ID, "rom").Fact.Explanations, 2)
	built := known(t, actions, machine.ID, "built")
	require.Equal(t, []any{facts.Settled, "1985-09/1986-02"}, []any{built.Fact.State, built.Fact.Now.Value})
	_, err = actions.Evidence.StateEvidence(ctx, technician, machine.ID, said("built", "1990", "document"))
	require.NoError(t, err)
	require.Equal(t, facts.Disputed, known(t, actions, machine.ID, "built").Fact.State, "a paper and the parts")
}
