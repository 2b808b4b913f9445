package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	"frugalheron/app/inventory"
	"frugalheron/app/people"
	"frugalheron/core/accession"
)

func cents(n int64) *int64 { return &n }

// nine is a lot of nine things at 371.00 with 48.50 carriage.
func nine(t *testing.T, actions *app.App) arrivals.Lot {
	things := []arrivals.LotItemInput{}
	for i, title := range []string{"Machine", "Terminal", "Memory card", "Keyboard", "Handbook", "Disks", "Lamp",
		"Lead", "Pens"} {
		kind := "part"
		if i < 2 {
			kind = "machine"
		}
		things = append(things,
			arrivals.LotItemInput{Kind: kind, Title: title, EstimateCents: cents(int64(333 * (i + 1)))})
	}
	received, err := actions.Arrivals.Receive(ctx, curator, arrivals.AcquisitionInput{
		Title: "Chattels of the pilot office", Method: "auction", Arrived: "2025-03-14", PriceCents: cents(371_00),
		Costs: []arrivals.ExtraCost{{What: "carriage", Cents: 48_50}},
	}, things)
	require.NoError(t, err)
	return received
}

func sharesOf(l arrivals.Lot) (sum int64) {
	for _, thing := range l.Things {
		if thing.ShareCents != nil {
			sum += *thing.ShareCents
		}
	}
	return sum
}

func TestALotIsSpreadToTheCent(t *testing.T) {
	_, actions := newApp(t)
	l := nine(t, actions)
	require.Equal(t, "419.50", l.Cost)
	require.Equal(t, "EUR", l.Currency)
	for _, way := range []string{"estimate", "equal", "estimate"} {
		fields := l.AcquisitionInput
		fields.Spread = way
		var err error
		l, err = actions.Arrivals.ChangeAcquisition(ctx, curator, l.ID, l.Version, fields)
		require.NoError(t, err)
		require.Empty(t, l.SpreadProblem)
		require.Equal(t, int64(419_50), sharesOf(l), way)
	}
	// By hand it has to add up, and says by how much it does not.
	fields := l.AcquisitionInput
	fields.Spread = "hand"
	l, err := actions.Arrivals.ChangeAcquisition(ctx, curator, l.ID, l.Version, fields)
	require.NoError(t, err)
	require.Equal(t, "Machine has no share yet; write one, 0.00 too", l.SpreadProblem)
	for _, thing := range l.Things {
		item := thing.LotItemInput
		item.HandCents = cents(0)
		if thing.Title == "Memory card" {
			item.HandCents, item.ValueCents = cents(400_00), cents(520_00)
		}
		l, err = actions.Arrivals.ChangeLotItem(ctx, curator, l.ID, l.Version, thing.ID, item)
		require.NoError(t, err)
	}
	require.Equal(t, "the shares add up to 400.00; 19.50 of 419.50 is not spread yet", l.SpreadProblem)
	require.Equal(t, "Memory card alone outweighs the whole lot: 520.00 against 419.50", l.Worth.Verdict)
	require.Zero(t, sharesOf(l))

	_, err = actions.Arrivals.AddLotItem(ctx, curator, l.ID, l.Version-1,
		arrivals.LotItemInput{Kind: "part", Title: "Late"})
	var stale *action.Stale
	require.ErrorAs(t, err, &stale) // shares hang together: whoever adds has to have seen all things
	_, err = actions.Arrivals.Lot(ctx, action.Actor{}, l.ID)
	require.ErrorIs(t, err, action.ErrForbidden)
}

func TestThingsOfALotFindTheirPlace(t *testing.T) {
	db, actions := newApp(t)
	collection, err := actions.Inventory.Collection(ctx, viewer)
	require.NoError(t, err)
	require.Equal(t, "{year}.{lot}.{item}", collection.AccessionPattern)
	l := nine(t, actions)
	again := func() arrivals.Lot {
		now, err := actions.Arrivals.Lot(ctx, viewer, l.ID)
		require.NoError(t, err)
		return now
	}
	next, err := actions.Inventory.NextNumber(ctx, curator, l.ID)
	require.NoError(t, err)
	require.Equal(t, "2025.1.1", next.Number)
	machine, err := actions.Arrivals.ItemBecomesMachine(ctx, curator, l.ID, l.Version, l.Things[0].ID,
		inventory.MachineInput{Accession: next.Number, Name: "Meridian 2"})
	require.NoError(t, err)
	next, err = actions.Inventory.NextNumber(ctx, curator, l.ID)
	require.NoError(t, err)
	require.Equal(t, "2025.1.2", next.Number) // the lot has its number now
	other, err := actions.Inventory.NextNumber(ctx, curator, 0)
	require.NoError(t, err)
	require.NotEqual(t, next.Number, other.Number)

	dossier, err := actions.Bench.Dossier(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, l.ID, dossier.Arrival.Lot.ID)
	require.Equal(t, "Machine", dossier.Arrival.Thing.Title)
	require.NotEmpty(t, dossier.Arrival.Thing.Share)

	card, err := actions.Arrivals.ItemBecomesAssembly(ctx, curator, l.ID, again().Version, l.Things[2].ID,
		"Store, shelf B", inventory.AssemblyInput{Kind: "card", Title: "Memory card"})
	require.NoError(t, err)
	came, err := actions.Bench.AssemblyArrival(ctx, viewer, card.ID)
	require.NoError(t, err)
	require.Equal(t, "Memory card", came.Thing.Title)
	club, err := actions.People.AddParty(ctx, curator,
		people.PartyInput{Name: "Saltmarsh Repair Club", Kind: "organisation"})
	require.NoError(t, err)
	lamp := l.Things[6].LotItemInput
	lamp.PassedOn, lamp.PassedTo, lamp.PassedForCents = "2025-06", &club.ID, cents(6_00)
	now, err := actions.Arrivals.ChangeLotItem(ctx, curator, l.ID, again().Version, l.Things[6].ID, lamp)
	require.NoError(t, err)
	require.Equal(t, "passed on to Saltmarsh Repair Club, 2025-06, for 6.00", now.Things[6].Disposition)
	require.Equal(t, int64(419_50), sharesOf(now)) // what was passed on keeps its share

	var invalid *action.Invalid
	_, err = actions.Arrivals.ItemBecomesMachine(ctx, curator, l.ID, now.Version, l.Things[0].ID,
		inventory.MachineInput{Accession: "2025.1.9", Name: "Twice"})
	require.ErrorAs(t, err, &invalid)
	_, _, err = actions.Arrivals.VoidLotItem(ctx, curator, l.ID, now.Version, l.Things[0].ID)
	require.ErrorAs(t, err, &invalid)
	now, err = actions.Arrivals.ItemIsMachine(ctx, curator, l.ID, now.Version, l.Things[0].ID, 0)
	require.NoError(t, err)
	now, err = actions.Arrivals.ItemIsMachine(ctx, curator, l.ID, now.Version, l.Things[1].ID, machine.ID)
	require.NoError(t, err)
	_, err = actions.Arrivals.ItemIsMachine(ctx, curator, l.ID, now.Version, l.Things[0].ID, machine.ID)
	require.ErrorContains(t, err, "came with another lot")

	after, event, err := actions.Arrivals.VoidLotItem(ctx, curator, l.ID, now.Version, l.Things[8].ID)
	require.NoError(t, err)
	require.Len(t, after.Things, 8)
	require.Equal(t, int64(419_50), sharesOf(after))
	require.NoError(t, actions.History.Undo(ctx, curator, event))
	require.Len(t, again().Things, 9)
	require.Equal(t, []string{"item becomes machine", "unlink lot item"}, actionsOf(t, db, "lot item", l.Things[0].ID))
}

// A number is given once: a machine that gets another keeps both, and a register's old ones are taken.
func TestNumbersAreNeverGivenTwice(t *testing.T) {
	_, actions := newApp(t)
	enter := func(number string) (inventory.Machine, error) {
		return actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: number, Name: number})
	}
	_, err := actions.Inventory.ChangeCollection(ctx, curator, 1,
		inventory.CollectionInput{AccessionPattern: "EH-{number:4}", Currency: "eur"})
	require.NoError(t, err)
	first, err := enter("EH-0001")
	require.NoError(t, err)
	fields := first.MachineInput
	fields.Accession = "EH-0005"
	renamed, err := actions.Inventory.ChangeMachine(ctx, curator, first.ID, first.Version, fields)
	require.NoError(t, err)
	_, err = enter("EH-0001")
	require.ErrorContains(t, err, "was given before")
	fields.Accession = "EH-0001" // its own old number it may have again
	_, err = actions.Inventory.ChangeMachine(ctx, curator, first.ID, renamed.Version, fields)
	require.NoError(t, err)

	text := "EH-0003; given back in 1999\nEH-0001\nEH-0003; twice\n; nothing\n\nold 17\tfrom the card index"
	for _, dry := range []bool{true, false} {
		lines, err := actions.Inventory.ImportNumbers(ctx, curator, text, dry)
		require.NoError(t, err)
		wrong := []string{}
		for _, l := range lines {
			wrong = append(wrong, l.Wrong)
		}
		require.Equal(t,
			[]string{"", "a machine of the collection has it, or had it", "stands in line 1 already",
				"no number at the start of the line", ""}, wrong)
		register, err := actions.Inventory.Register(ctx, viewer)
		require.NoError(t, err)
		if dry {
			require.Equal(t, []accession.Gap{{From: "EH-0002", To: "EH-0004", Count: 3}}, register.Gaps)
		} else {
			require.Equal(t, []accession.Gap{{From: "EH-0002", To: "EH-0002", Count: 1},
				{From: "EH-0004", To: "EH-0004", Count: 1}}, register.Gaps)
			require.Len(t, register.Explained, 3) // EH-0003, EH-0005, old 17
		}
	}
	_, err = enter("EH-0003")
	require.ErrorContains(t, err, "was given before")
	next, err := actions.Inventory.NextNumber(ctx, curator, 0)
	require.NoError(t, err)
	require.Equal(t, "EH-0006", next.Number)
	_, err = actions.Inventory.ChangeCollection(ctx, curator, 2,
		inventory.CollectionInput{AccessionPattern: "EH", Currency: "EUR"})
	require.ErrorContains(t, err, "nothing in it counts")
}

func TestArrivalsThatCannotBeAreRefused(t *testing.T) {
	_, actions := newApp(t)
	none := int64(77)
	for field, fields := range map[string]arrivals.AcquisitionInput{
		"title": {Method: "gift"}, "arrived": {Title: "x", Method: "gift", Arrived: "2099"},
		"currency": {Title: "x", Method: "gift", Currency: "euro"},
		"costs":    {Title: "x", Method: "gift", Costs: []arrivals.ExtraCost{{Cents: 1}}},
		"partyId":  {Title: "x", Method: "gift", PartyID: &none},
	} {
		_, err := actions.Arrivals.Receive(ctx, curator, fields, nil)
		var invalid *action.Invalid
		require.ErrorAs(t, err, &invalid, field)
		require.Equal(t, field, invalid.Field)
	}
}

// A thing that turns up late changes all shares, and a party is changed by one at a time.
func TestALateThingAndARenamedParty(t *testing.T) {
	_, actions := newApp(t)
	l := nine(t, actions)
	before := len(l.Things)
	l, err := actions.Arrivals.AddLotItem(ctx, curator, l.ID, l.Version,
		arrivals.LotItemInput{Kind: "part", Title: "Late cable", EstimateCents: cents(50_00)})
	require.NoError(t, err)
	require.Len(t, l.Things, before+1)
	require.Equal(t, int64(419_50), sharesOf(l), "the cost stays, whatever is found")
	var invalid *action.Invalid
	for why, item := range map[string]arrivals.LotItemInput{
		"no name": {Kind: "part"}, "passed on without a day": {Kind: "part", Title: "x", PassedForCents: cents(1)},
		"to nobody known": {Kind: "part", Title: "x", PassedOn: "2025", PassedTo: ptr(int64(999))},
	} {
		_, err := actions.Arrivals.AddLotItem(ctx, curator, l.ID, l.Version, item)
		require.ErrorAs(t, err, &invalid, why)
	}
	_, err = actions.Arrivals.AddLotItem(ctx, technician, l.ID, l.Version,
		arrivals.LotItemInput{Kind: "part", Title: "x"})
	require.ErrorIs(t, err, action.ErrForbidden)

	quay, err := actions.People.AddParty(ctx, curator, people.PartyInput{Kind: "organisation", Name: "Quay office"})
	require.NoError(t, err)
	pilots, err := actions.People.AddParty(ctx, curator, people.PartyInput{Kind: "organisation", Name: "Pilots"})
	require.NoError(t, err)
	renamed, err := actions.People.ChangeParty(ctx, curator, quay.ID, quay.Version,
		people.PartyInput{Kind: "organisation", Name: "Harbour quay office"})
	require.NoError(t, err)
	require.Equal(t, quay.Version+1, renamed.Version)
	var stale *action.Stale
	_, err = actions.People.ChangeParty(ctx, curator, quay.ID, quay.Version,
		people.PartyInput{Kind: "organisation", Name: "Other"})
	require.ErrorAs(t, err, &stale)
	require.Equal(t, renamed, stale.Newer)
	_, err = actions.People.ChangeParty(ctx, curator, pilots.ID, pilots.Version,
		people.PartyInput{Kind: "organisation", Name: "harbour QUAY office"})
	require.ErrorAs(t, err, &invalid, "two of one name")
	_, err = actions.People.ChangeParty(ctx, technician, pilots.ID, pilots.Version,
		people.PartyInput{Kind: "organisation", Name: "x"})
	require.ErrorIs(t, err, action.ErrForbidden)
}

func ptr[Value any](v Value) *Value { return &v }
