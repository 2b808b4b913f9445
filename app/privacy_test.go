package app_test

import (
	"encoding/base64"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	appevidence "frugalheron/app/evidence"
	"frugalheron/app/files"
	"frugalheron/app/inventory"
	"frugalheron/app/people"
	"frugalheron/core/facts"
	"frugalheron/store/blobs"
)

// private adds somebody private.
func private(t *testing.T, actions *app.App, name, role string, spellings ...string) people.Party {
	party, err := actions.People.AddParty(ctx, curator,
		people.PartyInput{Name: name, Kind: "person", Private: true, Role: role,
			Spellings: strings.Join(spellings, "\n")})
	require.NoError(t, err)
	return party
}

func public[Value any](t *testing.T, actions *app.App, value Value) Value {
	privacy, err := actions.People.Privacy(ctx)
	require.NoError(t, err)
	return privacy.Public(value).(Value)
}

// Somebody who is called like an ordinary word, a part number or a word of a list breaks none of them.
func TestOnlyTypedTextsLoseNames(t *testing.T) {
	_, actions, machine, board := newBoard(t,
		inventory.MachineInput{Provenance: "rose from the hall; settled by Rose"},
		"== Main board\nU1 27128 8533 # rose put it in\nU2 rose-7 @socket !leaking: rose told\nrose's line")
	for i, name := range []string{"Rose", "27128", "leaking", "settled", "EH-0142", "curator", "socket", "chip", "8533",
		"U14"} {
		private(t, actions, name, fmt.Sprintf("somebody %c", 'a'+i))
	}
	contents, err := actions.Sheets.Contents(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, "U1 27128 8533 # somebody a put it in\nU2 rose-7 @socket !leaking: somebody a told\nsomebody a's line", public(t, actions, contents)[0].Body)
	told := public(t, actions, machine)
	require.Equal(t, "somebody a from the hall; somebody d by somebody a", told.Provenance)
	require.Equal(t, "EH-0142", told.Accession)
	entries, err := actions.Sheets.Entries(ctx, viewer, board.ID, 0, 10)
	require.NoError(t, err)
	clean := public(t, actions, entries)
	require.Equal(t, "27128", clean[0].TypeNumber)
	require.Equal(t, []string{"chip", "27128 8533"}, []string{clean[0].Kind, clean[0].Marking})
	require.Equal(t, "leaking", clean[1].Findings[0].Kind)
	require.Equal(t, "somebody a told", clean[1].Findings[0].Note)
	require.False(t, technician.Hides())
	require.True(t, viewer.Hides())
	require.True(t, action.Actor{}.Hides())
	known := public(t, actions,
		appevidence.Known{
			Fact: facts.Fact{State: facts.Settled, Now: &facts.Value{Value: "Rose"}},
		})
	require.Equal(t, facts.Settled, known.Fact.State)
	require.Equal(t, "somebody a", known.Fact.Now.Value)
}

// A text points to a person once somebody has said so; an ordinary word that is nobody stays, and a later edit is
// asked about anew. However the person is called later, who was meant stays private.
func TestTextsPointToPersons(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{}, "== Main board\nU1 7400")
	rose := private(t, actions, "Rose Tregear", "a neighbour", "Rose")
	found := 0
	asked := people.OnNamesFound(ctx, func(n int) { found += n })
	write := func(text string) inventory.Machine {
		now, err := actions.Inventory.Machine(ctx, curator, machine.ID)
		require.NoError(t, err)
		fields := now.MachineInput
		fields.Provenance = text
		changed, err := actions.Inventory.ChangeMachine(asked, curator, machine.ID, now.Version, fields)
		require.NoError(t, err)
		return changed
	}
	changed := write("The voltage rose; bought of R. Tregear.")
	require.Equal(t, 2, found)
	require.Equal(t, "The voltage a neighbour; bought of a neighbour.", public(t, actions, changed).Provenance)
	open, err := actions.People.Mentions(ctx, technician)
	require.NoError(t, err)
	require.Len(t, open, 2)
	require.Equal(t, []string{"R. Tregear", "rose"}, []string{open[0].Spelling, open[1].Spelling})
	require.Contains(t, open[1].Around, "The voltage rose")
	require.Equal(t, "EH-0142", open[1].Accession)
	require.NoError(t, actions.People.DecideMention(ctx, technician, open[1].ID, open[1].Version, false))
	require.NoError(t, actions.People.DecideMention(ctx, technician, open[0].ID, open[0].Version, true))
	var stale *action.Stale
	require.ErrorAs(t, actions.People.DecideMention(ctx, technician, open[0].ID, open[0].Version, false), &stale)
	require.ErrorIs(t, actions.People.DecideMention(ctx, viewer, open[0].ID, open[0].Version, false),
		action.ErrForbidden)
	require.Equal(t, "The voltage rose; bought of a neighbour.", public(t, actions, changed).Provenance)
	require.Empty(t, must(actions.People.Mentions(ctx, technician)))

	// The same text again is not asked about again; another is.
	found = 0
	write("The voltage rose.")
	require.Equal(t, 1, found)
	_, err = actions.Sheets.SaveSheet(asked, technician, board.ID, 1, "U1 7400 # rose said\nU2 rose-1")
	require.NoError(t, err)
	require.Equal(t, 2, found)

	// Called otherwise by now.
	fields := rose.PartyInput
	fields.Name, fields.Spellings = "Zennor Quillivan", ""
	_, err = actions.People.ChangeParty(ctx, curator, rose.ID, rose.Version, fields)
	require.NoError(t, err)
	require.Equal(t, "bought of a neighbour",
		public(t, actions, inventory.MachineInput{Provenance: "bought of R. Tregear"}).Provenance)
	// Who is no longer private is no secret.
	now := must(actions.People.Parties(ctx, curator, "quillivan"))[0]
	fields = now.PartyInput
	fields.Private = false
	_, err = actions.People.ChangeParty(ctx, curator, rose.ID, now.Version, fields)
	require.NoError(t, err)
	require.Equal(t, "Zennor Quillivan, R. Tregear",
		public(t, actions, inventory.MachineInput{Provenance: "Zennor Quillivan, R. Tregear"}).Provenance)

	// What was decided can be taken back, and is asked about again.
	events := must(actions.History.History(ctx, curator, 0, 0, 50)).Events
	for _, e := range events {
		if strings.Contains(e.What, "is not") {
			require.NoError(t, actions.History.Undo(ctx, curator, e.ID))
		}
	}
}

// What was written before somebody became private, or was known to be called another way, is asked about, too: the last
// text of each record, not what was overwritten since.
func TestTextsFromBeforeAreAskedAbout(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{Provenance: "hung beside Rose"},
		"== Main board\nU1 7400 # Rose, once")
	fields := machine.MachineInput
	fields.Provenance = strings.Repeat("It stood in the hall of the mill for a long time, and there ", 3) +
		"the voltage rose, as the people of the mill " +
		"tell, in the winter of 1994, when the river came"
	changed := must(actions.Inventory.ChangeMachine(ctx, curator, machine.ID, machine.Version, fields))
	must(actions.Sheets.SaveSheet(ctx, technician, board.ID, 1,
		"== Main board\nU1 7400 # hot; ro\u0301se told us\nU2 ROSE7"))
	must(actions.QuickEntry.Enter(ctx, technician, machine.ID, 0, 0, "note Tre-\ngear called"))
	ends := "Rose says the ledger ran until the books went to the bank in 1994."
	must(actions.QuickEntry.Enter(ctx, technician, machine.ID, 0, 0, "note "+ends))
	must(actions.People.AddParty(ctx, curator,
		people.PartyInput{Name: "Rose Quillivan", Kind: "person", Role: "somebody else"}))
	found := 0
	asked := people.OnNamesFound(ctx, func(n int) { found += n })
	rose := must(actions.People.AddParty(asked, curator,
		people.PartyInput{Name: "Rose", Kind: "person", Private: true, Role: "a neighbour"}))
	said := func() []string {
		words := []string{}
		for _, m := range must(actions.People.Mentions(ctx, technician)) {
			words = append(words, m.Spelling+": "+m.Around)
		}
		return words
	}
	require.Equal(t, 3, found)
	require.Len(t, said(), 3)
	require.Equal(t, "rose: … hall of the mill for a long time, and there the voltage rose, as the people of the mill tell, in the winter of 1994, when …",
		said()[2], "whole words, and dots where the text goes on")
	require.Contains(t, said()[1], "told us")
	require.Equal(t, "Rose: "+ends, said()[0], "the last word is a whole one, too")
	require.Equal(t, "voltage a neighbour",
		public(t, actions, changed).Provenance[strings.Index(changed.Provenance, "voltage"):][:19])
	spelled := rose.PartyInput
	spelled.Spellings = "Tregear"
	must(actions.People.ChangeParty(asked, curator, rose.ID, rose.Version, spelled))
	require.Equal(t, 4, found, "only the new spelling is new")
	require.Contains(t, strings.Join(said(), "\n"), "called")
}

func must[Value any](value Value, err error) Value {
	if err != nil {
		panic(err)
	}
	return value
}

// Neither searches nor counts nor the order of a list tell a viewer of a name: parts of it change nothing.
func TestViewersSearchOnlyWhatTheyMaySee(t *testing.T) {
	db, actions := newApp(t)
	add := func(accession, name, provenance, place string) inventory.Machine {
		return must(actions.Inventory.CreateMachine(ctx, curator,
			inventory.MachineInput{Accession: accession, Name: name, Provenance: provenance, Place: place}))
	}
	add("EH-1", "Meridian", "from the attic of Jory Penhallow", "Loft")
	add("EH-2", "Penhallow, Jory: his terminal", "", "Shed of J. Penhallow")
	add("EH-3", "Sorter", "", "Loft")
	homebrew := inventory.MachineInput{Accession: "EH-5", Name: "Home-built trainer", Maker: "Jory Penhallow"}
	before := private(t, actions, "Jory Penhallow", "a former pilot") // what was there before is found
	add("EH-4", "Terminal", "Ｊｏｒｙ\nPenhallow's", "Loft")
	must(actions.Inventory.CreateMachine(ctx, curator, homebrew))
	machine := must(actions.Inventory.ListMachines(ctx, curator, inventory.MachineList{Limit: 1})).Machines[0]
	must(actions.Sheets.TakeOverSheet(ctx, technician, machine.ID, "== Card of Jory Penhallow\nU1 7400"))
	must(actions.Arrivals.Receive(ctx, curator,
		arrivals.AcquisitionInput{Title: "Attic of Jory Penhallow", Method: "gift"},
		[]arrivals.LotItemInput{{Kind: "machine", Title: "Penhallow, J. (box)"}}))
	count := func(actor action.Actor, words string) int {
		found := must(actions.Inventory.Find(ctx, actor, words))
		facets := must(actions.Inventory.CountFacets(ctx, actor, inventory.MachineFilters{Search: words}))
		n := found.Total + len(found.Assemblies) + len(must(actions.Arrivals.Lots(ctx, actor, words, 0, 10)).Lots)
		for _, value := range append(facets.Places, facets.Makers...) {
			n += value.Count
		}
		return n
	}
	for _, words := range []string{"penhallow", "penha", "jory", "pen", "JORY", "j. pen", "jory loft"} {
		require.Positive(t, count(curator, words), words)
		require.Zero(t, count(viewer, words), words)
	}
	for words, n := range map[string]int{"pilot": 14, "loft": 9, "sorter": 3, "attic": 4} {
		require.Equal(t, n, count(viewer, words), words)
	}
	require.Equal(t, []string{"Loft", "Shed of a former pilot"}, must(actions.Inventory.Places(ctx, viewer)))
	facets := must(actions.Inventory.CountFacets(ctx, viewer, inventory.MachineFilters{}))
	require.NotContains(t, fmt.Sprint(facets), "Penhallow")
	require.Equal(t, 1, must(actions.Inventory.ListMachines(ctx, viewer,
		inventory.MachineList{MachineFilters: inventory.MachineFilters{Makers: []string{"a former pilot"}},
			Limit: 5})).Total)
	require.Zero(t, must(actions.Inventory.ListMachines(ctx, viewer,
		inventory.MachineList{MachineFilters: inventory.MachineFilters{Makers: []string{"Jory Penhallow"}},
			Limit: 5})).Total)
	page := must(actions.Inventory.ListMachines(ctx, viewer,
		inventory.MachineList{MachineFilters: inventory.MachineFilters{Places: []string{"Shed of a former pilot"}},
			Limit: 5}))
	require.Len(t, page.Machines, 1)
	require.Zero(t, must(actions.Inventory.ListMachines(ctx, viewer,
		inventory.MachineList{MachineFilters: inventory.MachineFilters{Places: []string{"Shed of J. Penhallow"}},
			Limit: 5})).Total)
	for _, sort := range []string{"name", "place", "maker"} {
		order := []string{}
		for next := ""; ; {
			page := must(actions.Inventory.ListMachines(ctx, viewer,
				inventory.MachineList{Sort: sort, After: next, Limit: 1}))
			for _, m := range page.Machines {
				order = append(order, m.Accession)
			}
			if next = page.Next; next == "" {
				break
			}
			require.NotContains(t, decoded(t, next), "enhallow")
		}
		require.Equal(t,
			map[string][]string{"name": {"EH-2", "EH-5", "EH-1", "EH-3", "EH-4"},
				"place": {"EH-5", "EH-1", "EH-3", "EH-4", "EH-2"},
				"maker": {"EH-1", "EH-2", "EH-3", "EH-4", "EH-5"}}[sort], order)
	}
	requireProjectionsHold(t, db, actions)

	// Called otherwise, or not private any more: what is public follows.
	fields := before.PartyInput
	fields.Private = false
	must(actions.People.ChangeParty(ctx, curator, before.ID, before.Version, fields))
	require.Equal(t, count(curator, "penhallow"), count(viewer, "penhallow"))
	var left int
	require.NoError(t, db.Get(&left, `SELECT count(*) FROM public_text`))
	require.Zero(t, left)
}

// The history tells a viewer what the records tell, and no more; what was done to others cannot be undone by number.
func TestHistoryObeysTheRightsOfItsSubjects(t *testing.T) {
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{}, "== Main board\nU1 7400")
	kept, err := blobs.Open(ctx, t.TempDir())
	require.NoError(t, err)
	actions.WithBlobs(kept)
	must(actions.Accounts.AddAccount(ctx, "ida", "Ida Reed", action.Viewer, "tide gauge under glass"))
	letter := must(actions.Files.Attach(ctx, technician, files.Owner{MachineID: &machine.ID}, "letter of Jory.txt",
		[]byte("Dear all")))
	letter = must(actions.Files.ChangeAttachment(ctx, technician, letter.ID, letter.Version,
		files.AttachmentInput{Caption: "secret caption", Translation: "secret translation", StaffOnly: true}))
	private(t, actions, "Jory Penhallow", "a former pilot")
	must(actions.People.NotePersonalData(ctx, technician, machine.ID,
		people.PersonalDataInput{Medium: "secret medium", Sort: "letters"}))
	must(actions.QuickEntry.Enter(ctx, technician, machine.ID, 0, 0, "note Penhallow, Jory was here"))
	words := func(actor action.Actor) string {
		all := ""
		for _, e := range append(must(actions.History.History(ctx, actor, 0, 0, 100)).Events,
			must(actions.History.History(ctx, actor, machine.ID, 0, 100)).Events...) {
			all += e.What + "\n"
		}
		return all
	}
	secrets := []string{"secret", "letter of Jory", "Penhallow", "ida"}
	for _, secret := range secrets {
		require.Contains(t, words(curator), secret)
		require.NotContains(t, words(viewer), secret)
	}
	require.Contains(t, words(viewer), "noted: a former pilot was here")
	require.NotContains(t, words(technician), "ida", "accounts are the curators'")
	require.Contains(t, words(technician), "secret medium")
	require.Empty(t, must(actions.Bench.Dossier(ctx, viewer, machine.ID)).PersonalData)
	require.Len(t, must(actions.Bench.Dossier(ctx, technician, machine.ID)).PersonalData, 1)
	exported := string(must(actions.Bench.ExportDossier(ctx, viewer, machine.ID)).Data)
	require.NotContains(t, exported, "secret")

	// A page is full, whatever is left out of it, and undoing by number finds only what one may read.
	page := must(actions.History.History(ctx, viewer, 0, 0, 2))
	require.Len(t, page.Events, 2)
	require.NotZero(t, page.Next)
	for _, e := range must(actions.History.History(ctx, curator, 0, 0, 100)).Events {
		if strings.Contains(e.What, "secret") || strings.Contains(e.What, "letter") {
			require.ErrorIs(t, actions.History.Undo(ctx, viewer, e.ID), action.ErrNotFound)
		}
	}
	// Everybody sees it now: so is what is done to it from now on; what was said before stays for staff.
	must(actions.Files.ChangeAttachment(ctx, technician, letter.ID, letter.Version,
		files.AttachmentInput{Caption: "for all"}))
	letter = must(actions.Files.Attachment(ctx, viewer, letter.ID))
	must(actions.Files.ChangeAttachment(ctx, technician, letter.ID, letter.Version,
		files.AttachmentInput{Caption: "for all to see"}))
	require.NotContains(t, words(viewer), "secret")
	require.Contains(t, words(viewer), "for all to see")
	id := must(actions.Accounts.AddAccount(ctx, "bo", "Bo", action.Viewer, "tide gauge under glass"))
	require.Contains(t, words(action.Actor{AccountID: id, Role: action.Viewer}), "bo (viewer)", "one's own account")
}

// decoded is what stands in the end of a page.
func decoded(t *testing.T, next string) string {
	text, err := base64.RawURLEncoding.DecodeString(next)
	require.NoError(t, err)
	return string(text)
}
