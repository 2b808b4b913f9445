package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	appsigns "frugalheron/app/signs"
	"frugalheron/app/unknowns"
	"frugalheron/core/sign"
)

// signed adds a model with signs and two machines of it, each with a card.
func signed(t *testing.T, actions *app.App) (model library.MachineModel, first, second int64) {
	model = must(actions.Library.AddModel(ctx, technician, library.ModelInput{Maker: "Tarn & Vole", Model: "Meridian 2",
		Signs: "row power, fault\nexpect screen 128 KB OK | ready | all is found | | recalled | without 4424-1\n" +
			"expect screen 512 KB OK | ready | all is found | | recalled | with 4424-1"}))
	for i, accession := range []string{"EH-1", "EH-2"} {
		id := must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: accession,
			Name: "Meridian", ModelID: &model.ID})).ID
		heading := []string{"== Memory card | part 4424 1\nU1 7400", "== Video card | part 4422\nU1 7400"}[i]
		must(actions.Sheets.TakeOverSheet(ctx, curator, id, heading))
		first, second = second, id
	}
	return model, first, second
}

// What is expected follows from the cards that are fitted; what nobody can read is open once for a model, until an answer
// or a line of a list settles it, on what was seen before as well.
func TestSignsAreReadByWhatIsFittedAndWhatIsListed(t *testing.T) {
	_, actions := newApp(t)
	model, with, without := signed(t, actions)
	see := func(machine int64, in appsigns.SightingInput) appsigns.SignSeen {
		return must(actions.Signs.SeeSign(ctx, technician, machine, in))
	}
	screen := appsigns.SightingInput{Kind: sign.Screen, Shown: "512 KB OK", During: "ready"}
	require.Equal(t, sign.AsExpected, see(with, screen).Reading.Outcome)
	second := see(without, screen)
	require.Equal(t, sign.Perhaps, second.Reading.Outcome)
	require.Equal(t, []string{"by the record it cannot be shown: 4424-1 is not fitted"},
		second.Reading.Matches[0].Doubts)

	halt := appsigns.SightingInput{Kind: sign.Screen, Shown: "SYS HALT 3F"}
	see(with, halt)
	see(without, halt)
	open := func(machine int64) (subjects []string) {
		for _, one := range must(actions.Unknowns.Unknowns(ctx, viewer, machine)).Open {
			if one.Sort == "sign" {
				subjects = append(subjects, one.Subject)
			}
		}
		return subjects
	}
	subject := "Tarn & Vole Meridian 2 screen: SYS HALT 3F"
	require.Equal(t, []string{subject, second.Subject}, open(0), "the one of two machines goes first")
	require.Equal(t, []string{subject}, open(with))
	asked := must(actions.Unknowns.Ask(ctx, technician, unknowns.QuestionInput{Sort: "sign", Subject: subject}))
	must(actions.Unknowns.AnswerQuestion(ctx, technician, asked.ID, asked.Version,
		unknowns.Answer{Answer: "no keyboard", Source: "a letter"}))
	require.Empty(t, open(with))
	seen := must(actions.Signs.Signs(ctx, viewer, with)).Seen[0]
	require.Equal(t, "no keyboard", seen.Answer.Text)

	fields := model.ModelInput
	fields.Signs += "\nscreen SYS HALT ?? | any | a trap without a handler | | letter of the maker"
	must(actions.Library.ChangeModel(ctx, technician, model.ID, model.Version, fields))
	seen = must(actions.Signs.Signs(ctx, viewer, with)).Seen[0]
	require.Nil(t, seen.Answer, "a line of the list says what it means now")
	require.Equal(t, "a trap without a handler", seen.Reading.Matches[0].Meaning)
	require.Equal(t, []string{"3F"}, seen.Reading.Matches[0].At)
	require.Len(t, must(actions.Signs.SignLists(ctx, viewer, "halt")), 1)
}

// A card brings its own signs, and takes them with it; what was seen while it was in is read as it was then.
func TestSignsOfACardGoWithIt(t *testing.T) {
	_, actions := newApp(t)
	_, with, without := signed(t, actions)
	must(actions.Library.NameKnown(ctx, technician, library.KnownInput{Name: "Memory card, 384 KB", Numbers: "4424-1",
		Signs: "lamps 1 | ready | it is spoken to"}))
	lamp := appsigns.SightingInput{Kind: sign.Lamps, Shown: "1", During: "ready"}
	require.Equal(t, sign.Listed, must(actions.Signs.ReadSign(ctx, viewer, with, lamp)).Reading.Outcome)
	require.Equal(t, sign.NoList, must(actions.Signs.ReadSign(ctx, viewer, without, lamp)).Reading.Outcome)
	told := must(actions.Signs.Signs(ctx, viewer, with))
	require.Len(t, told.Lists, 2)
	require.Equal(t, "512 KB OK", told.Expected[0].Shown)
	must(actions.Signs.SeeSign(ctx, technician, with, lamp))

	card := must(actions.Sheets.Contents(ctx, viewer, with))[0]
	must(actions.Inventory.MoveAssembly(ctx, technician, card.ID, card.Version, inventory.Move{To: "place",
		Place: "Shelf"}))
	told = must(actions.Signs.Signs(ctx, viewer, with))
	require.Len(t, told.Lists, 1)
	require.Equal(t, "128 KB OK", told.Expected[0].Shown)
	require.NotEqual(t, sign.NoList, told.Seen[0].Reading.Outcome, "it was in that day")

	for _, wrong := range []appsigns.SightingInput{{Kind: sign.Lamps, Shown: "1", AssemblyID: &card.ID},
		{Kind: sign.Lamps, Shown: " "}, {Kind: sign.Beeps, Shown: "a horn"},
		{Kind: sign.Code, Shown: "E4", On: "2099-01-01"}} {
		_, err := actions.Signs.SeeSign(ctx, technician, with, wrong)
		require.ErrorAs(t, err, new(*action.Invalid))
	}
	_, err := actions.Signs.SeeSign(ctx, viewer, with, lamp)
	require.ErrorIs(t, err, action.ErrForbidden)
	_, err = actions.Signs.Signs(ctx, viewer, 999)
	require.ErrorIs(t, err, action.ErrNotFound)
}
