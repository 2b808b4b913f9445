package app_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	appcondition "frugalheron/app/condition"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/unknowns"
	core "frugalheron/core/known"
)

// addCard adds a machine with one card, and returns both.
func addCard(actions *app.App, accession, heading, lines string) (machine, card int64) {
	machine = must(actions.Inventory.CreateMachine(ctx, curator,
		inventory.MachineInput{Accession: accession, Name: "Meridian"})).ID
	return machine, must(actions.Sheets.TakeOverSheet(ctx, curator, machine, "== "+heading+"\n"+lines))[0].ID
}

func claims(r library.Recognised) string {
	words := []string{}
	for _, c := range r.Claims {
		words = append(words, fmt.Sprintf("%s by %s %v", c.Name, c.By, c.Sure))
	}
	return strings.Join(words, "; ")
}

const diskChips = "U1 8272\nU2 2764 8530\nU3-U4 74LS245\nU5 8255\nU6-U7 74LS374\nU8 74LS138"

// A card that was named once is recognised on every machine, whatever its dashes and revision; where two records say
// what it is, both are told, and what is struck out is recognised no more.
func TestNamedOnceIsRecognisedEverywhere(t *testing.T) {
	_, actions := newApp(t)
	_, first := addCard(actions, "EH-1", "Card | part ASSY 4424-1 | rev B", "U1 7400")
	_, second := addCard(actions, "EH-2", "Some card | part 4424 1 | rev C", "U1 7400")
	_, third := addCard(actions, "EH-3", "Card", diskChips)
	recognised := func(card int64) library.Recognised { return must(actions.Condition.Recognised(ctx, viewer, card)) }
	require.Empty(t, recognised(first).Claims)
	card := must(actions.Library.NameKnown(ctx, technician, library.KnownInput{Name: "Memory card", Numbers: "4424-1",
		Revisions: "A-B", Details: "memory 384 KB\nfault C12 leaking: green below it | look below C12"}))
	require.Equal(t, "card", card.Kind)
	require.Equal(t, "Memory card by number true", claims(recognised(first)))
	require.Equal(t, "same", recognised(first).Claims[0].Revision)
	require.Equal(t, "other", recognised(second).Claims[0].Revision)
	disk := must(actions.Library.NameKnown(ctx, technician, library.KnownInput{Name: "Disk card", Numbers: "4430",
		Chips: "8272\n2764\n2x 74LS245\n8255\n2x 74LS374\n74LS138"}))
	require.Equal(t, "Disk card by chips true", claims(recognised(third)))
	places := must(actions.Condition.KnownAssembly(ctx, viewer, disk.ID)).Places
	require.Len(t, places, 1)
	require.Equal(t, third, places[0].AssemblyID)

	detail := must(actions.Condition.KnownAssembly(ctx, viewer, card.ID))
	require.Len(t, detail.Places, 2)
	require.Equal(t, []int64{detail.Places[0].AssemblyID, second}, detail.Untested[0].Open)
	require.Equal(t, int64(393_216), detail.Details.Memory[0].Bytes)

	rival := must(actions.Library.NameKnown(ctx, technician, library.KnownInput{Name: "Relay card", Numbers: "44241",
		Revisions: "B"}))
	require.True(t, recognised(first).IsDisputed)
	require.Len(t, recognised(first).Claims, 2)
	overlaps := must(actions.Condition.KnownAssembly(ctx, viewer, card.ID)).Overlaps
	require.Equal(t, "Relay card B", overlaps[0].Name+" "+overlaps[0].Revisions)
	must(actions.Library.StrikeKnown(ctx, technician, rival.ID))
	require.False(t, recognised(first).IsDisputed)
	// Another process knows it as well, and what others do not see yet is not kept for them.
	require.Equal(t, "Memory card by number true", claims(must(app.New(actions.Kernel.DB).Condition.Recognised(ctx,
		viewer, first))))

	_, err := actions.Library.NameKnown(ctx, viewer, library.KnownInput{Name: "X", Numbers: "1234"})
	require.ErrorIs(t, err, action.ErrForbidden)
	for field, wrong := range map[string]library.KnownInput{
		"name": {Numbers: "1234"}, "numbers": {Name: "Card"}, "revisions": {Name: "Card", Numbers: "1234",
			Revisions: "B-A"},
		"printed": {Name: "Card", Printed: "Memory card"}, "chips": {Name: "Card", Chips: "8272\n74LS245"},
		"details": {Name: "Card", Numbers: "1234", Details: "memory lots"},
	} {
		_, err := actions.Library.NameKnown(ctx, technician, wrong)
		var refused *action.Invalid
		require.ErrorAs(t, err, &refused, field)
		require.Equal(t, field, refused.Field)
	}
	_, err = actions.Library.ChangeKnown(ctx, technician, card.ID, 7, card.KnownInput)
	var stale *action.Stale
	require.ErrorAs(t, err, &stale)
}

// Part numbers that nobody knows are among the unknowns, one for all ways of writing it; an answer names the card.
func TestAnsweringAboutACardNamesIt(t *testing.T) {
	_, actions := newApp(t)
	machine, _ := addCard(actions, "EH-1", "Card | part 4424-1", "U1 7400")
	second, card := addCard(actions, "EH-2", "Card | part P/N 4424 1", "U1 7400")
	open := func(machine int64) []unknowns.Unknown {
		return must(actions.Unknowns.Unknowns(ctx, viewer, machine)).Open
	}
	require.Len(t, open(0), 1)
	require.Equal(t, "board 4424-1 2 2", fmt.Sprint(open(0)[0].Sort, " ", open(0)[0].Subject, " ", open(0)[0].Parts,
		" ",
		open(0)[0].Machines))
	require.Len(t, open(second), 1)
	asked := must(actions.Unknowns.Ask(ctx, curator, unknowns.QuestionInput{Sort: "card", Subject: "4424 1"}))
	require.NotNil(t, open(machine)[0].Question)
	settled := must(actions.Unknowns.AnswerQuestion(ctx, curator, asked.ID, asked.Version,
		unknowns.Answer{Answer: "Memory card, 384 KB", Source: "price list of 1986"}))
	require.NotZero(t, settled.KnownID)
	require.Empty(t, open(0))
	named := must(actions.Condition.Recognised(ctx, viewer, card)).Claims[0]
	require.Equal(t, "Memory card, 384 KB from price list of 1986", named.Name+" from "+named.Source)
	// What is no number and stands on many things is answered, and named nowhere.
	asked = must(actions.Unknowns.Ask(ctx, curator, unknowns.QuestionInput{Sort: "card", Subject: "the memory card"}))
	settled = must(actions.Unknowns.AnswerQuestion(ctx, curator, asked.ID, asked.Version,
		unknowns.Answer{Answer: "a spare", Source: "Bram"}))
	require.Zero(t, settled.KnownID)
}

// Who finds out that a card has what its kind is known for has found it; who finds that it has it no more has ended it.
func TestKnownFaultsAreFound(t *testing.T) {
	_, actions := newApp(t)
	machine, card := addCard(actions, "EH-1", "Card | part 4424-1", "C12 100uF 16V")
	record := must(actions.Library.NameKnown(ctx, technician, library.KnownInput{Name: "Memory card", Numbers: "4424-1",
		Details: "fault C12 leaking: green below it | look below C12"}))
	check := func(hasIt bool, on string) error {
		return actions.Condition.CheckFault(ctx, technician, card, appcondition.FaultCheckInput{KnownID: record.ID,
			Fault: "C12 leaking: green below it", HasIt: hasIt, On: on})
	}
	suspicion := func() library.Suspicion {
		return must(actions.Condition.Recognised(ctx, viewer, card)).Claims[0].Suspect[0]
	}
	require.Equal(t, "open", suspicion().State)
	require.NoError(t, check(true, "2026-01-05"))
	found := must(actions.Condition.Condition(ctx, viewer, machine)).Findings
	require.Len(t, found, 1)
	require.Equal(t, "leaking C12 true", fmt.Sprint(found[0].Kind, " ", found[0].Designator, " ", found[0].Story.Open))
	require.Equal(t, "has it 2026-01-05", suspicion().State+" "+suspicion().On)
	require.NoError(t, check(false, "2026-02-05"))
	require.False(t, must(actions.Condition.Condition(ctx, viewer, machine)).Findings[0].Story.Open)
	require.Equal(t, []int64{card}, must(actions.Condition.KnownAssembly(ctx, viewer, record.ID)).Untested[0].Clear)
	require.NoError(t, check(false, ""))
	// What stands on the sheet of another settles it there.
	_, marked := addCard(actions, "EH-2", "Card | part 4424-1", "C12 100uF 16V !leaking")
	require.Equal(t, "has it", must(actions.Condition.Recognised(ctx, viewer, marked)).Claims[0].Suspect[0].State)
	require.Equal(t, []int64{marked}, must(actions.Condition.KnownAssembly(ctx, viewer, record.ID)).Untested[0].Have)
	// What was found later counts more than a check before it, on the board and on the page of the record.
	require.NoError(t, actions.Condition.CheckFault(ctx, technician, marked, appcondition.FaultCheckInput{
		KnownID: record.ID, Fault: "C12 leaking: green below it", On: "2026-01-01"}))
	require.Equal(t, "has it", must(actions.Condition.Recognised(ctx, viewer, marked)).Claims[0].Suspect[0].State)
	require.Equal(t, []int64{marked}, must(actions.Condition.KnownAssembly(ctx, viewer, record.ID)).Untested[0].Have)
	require.Error(t, check(true, "2099-01-01"))
	require.ErrorContains(t, actions.Condition.CheckFault(ctx, technician, card, appcondition.FaultCheckInput{
		KnownID: record.ID, Fault: "nothing"}), "names no such fault")
	require.ErrorIs(t, actions.Condition.CheckFault(ctx, viewer, card, appcondition.FaultCheckInput{}),
		action.ErrForbidden)
}

// The database folds part numbers as the core does.
func TestPartNumbersAreFoldedAlike(t *testing.T) {
	db, actions := newApp(t)
	for i, part := range []string{"ASSY 4410-2", "p/n 44.10 2 b", "PS\u00a065", "KEY", "é 12–3\t(4)", "a#7'8\"9", "",
		"--", "x1\\2"} {
		_, card := addCard(actions, fmt.Sprintf("EH-%d", i), "Card", "U1 7400")
		before := must(actions.Inventory.Assembly(ctx, curator, card))
		fields := before.AssemblyInput
		fields.Part = strings.ReplaceAll(part, "\t", " ")
		must(actions.Inventory.ChangeAssembly(ctx, curator, card, before.Version, fields))
		var key string
		require.NoError(t, db.Get(&key, `SELECT part_key FROM assembly WHERE id = $1`, card))
		require.Equal(t, core.Fold(fields.Part), key, part)
	}
}
