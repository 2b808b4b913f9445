package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	"frugalheron/app/files"
	"frugalheron/app/inventory"
	"frugalheron/app/parts"
	"frugalheron/app/wanted"
	corewanted "frugalheron/core/wanted"
	"frugalheron/store/blobs"
)

// An offer is compared with what is looked for, held, and was paid; taken, it is a lot, and the search is at an end.
func TestWhatIsWantedIsFoundInAnOfferAndBecomesALot(t *testing.T) {
	_, actions := newApp(t)
	actions.WithBlobs(must(blobs.Open(ctx, t.TempDir())))
	machine := must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: "EH-1",
		Name: "Meridian 2"})).ID
	must(actions.Sheets.TakeOverSheet(ctx, curator, machine, "== Memory card | part 4424 1\nU1 7400"))
	price := func(cents int64) *int64 { return &cents }
	book := must(actions.Wanted.AddWant(ctx, technician, wanted.WantInput{What: "Service handbook of the Meridian 2",
		Kind: "manual", Alerts: []string{"service handbook", "", "service handbook"}, MachineID: &machine,
		MostCents: price(4000), Since: "2019-05-01"}))
	require.Equal(t, []string{"service handbook"}, book.Alerts)
	lamp := must(actions.Wanted.AddWant(ctx, technician, wanted.WantInput{What: "Lantern"}))
	must(actions.Wanted.AddWant(ctx, technician, wanted.WantInput{What: "service handbook", State: "given up"}))
	must(actions.Arrivals.Receive(ctx, curator, arrivals.AcquisitionInput{Title: "Estate", Method: "purchase",
		Arrived:    "2024",
		PriceCents: price(3100)}, []arrivals.LotItemInput{{Kind: "document", Title: "Meridian 2 handbook"}}))
	must(actions.Parts.AddStock(ctx, technician, parts.StockInput{What: "Meridian 2 keycap", Count: 3}))
	must(actions.Parts.AddOrder(ctx, technician, parts.OrderInput{Supplier: "Reed & Rush",
		Lines: []parts.OrderLineInput{{What: "card 4424-1", Count: 1, PriceCents: price(900)}}}))
	must(actions.Wanted.AddOffer(ctx, technician, wanted.OfferInput{Title: "Meridian 2 keycaps",
		AskingCents: price(200),
		SeenOn:      "2025-01-01", State: "gone"}))

	in := wanted.OfferInput{Title: "Service handbook and card 44241", Text: "for a Meridian 2, with keycap and a lantern",
		AskingCents: price(5000), EndsOn: action.Actor{}.Today()}
	read := must(actions.Wanted.ReadOffer(ctx, technician, in))
	offer := must(actions.Wanted.AddOffer(ctx, technician, in))
	told := must(actions.Wanted.Offers(ctx, technician))[0]
	require.Equal(t, read, told.Weighed, "as it was told before it was kept")
	require.Equal(t, []int64{book.ID, lamp.ID}, []int64{read.Hits[0].WantID, read.Hits[1].WantID})
	require.Empty(t, read.Hits[0].Doubt)
	require.Contains(t, read.Hits[1].Doubt, "ordinary")
	require.Equal(t, []corewanted.Met{{Name: "4424 1", Count: 1}, {Name: "Meridian 2", Count: 1}}, read.Held)
	require.Equal(t, "Meridian 2 keycap", read.Stores[0].What)
	kinds := []string{}
	for _, one := range read.Prices {
		kinds = append(kinds, one.Kind)
	}
	require.Equal(t, []string{"asked", "lot", "ordered"}, kinds)
	require.Contains(t, read.Over, "for any one thing")
	in.LimitCents = price(6000)
	require.Empty(t, must(actions.Wanted.ReadOffer(ctx, technician, in)).Over)
	due := must(actions.Work.Deadlines(ctx, technician))
	require.Equal(t, []any{"offer ends", offer.ID}, []any{string(due[0].Kind), due[0].ID})
	require.Empty(t, must(actions.Work.Deadlines(ctx, viewer)), "what is offered is for staff")

	ofOffer := files.Owner{OfferID: &offer.ID}
	photo := must(actions.Files.Attach(ctx, technician, ofOffer, "seller.png", smallPNG(t)))
	require.True(t, photo.StaffOnly)
	require.ErrorIs(t, second(actions.Files.Attachments(ctx, viewer, ofOffer, 0, 9)), action.ErrForbidden)
	require.ErrorIs(t, second(actions.Files.Attachment(ctx, viewer, photo.ID)), action.ErrNotFound)
	require.ErrorContains(t, second(actions.Files.ChangeAttachment(ctx, curator, photo.ID, photo.Version,
		files.AttachmentInput{Caption: "box"})), "for staff")

	_, err := actions.Wanted.TakeOffer(ctx, technician, offer.ID, offer.Version, wanted.TakenOffer{})
	require.Error(t, err, "a lot is the curator's")
	_, err = actions.Wanted.TakeOffer(ctx, curator, offer.ID, offer.Version, wanted.TakenOffer{Found: []int64{book.ID,
		book.ID}})
	require.ErrorContains(t, err, "looked for no more")
	taken := must(actions.Wanted.TakeOffer(ctx, curator, offer.ID, offer.Version,
		wanted.TakenOffer{PriceCents: price(4800),
			Found: []int64{book.ID}}))
	lot := must(actions.Arrivals.Lot(ctx, curator, *taken.LotID))
	require.Equal(t, []any{"document", "Service handbook of the Meridian 2", int64(4800)},
		[]any{lot.Things[0].Kind, lot.Things[0].Title, *lot.PriceCents})
	came := must(actions.Files.Attachments(ctx, technician, files.Owner{AcquisitionID: taken.LotID}, 0, 9)).Attachments
	require.Equal(t, []any{photo.SHA256, true}, []any{came[0].SHA256, came[0].StaffOnly},
		"its pictures are the lot's, too")
	require.Len(t, must(actions.Files.Attachments(ctx, technician, ofOffer, 0, 9)).Attachments, 1)
	found := must(actions.Wanted.Wants(ctx, technician))
	require.Equal(t, lamp.ID, found[0].ID, "what is open goes first")
	require.Equal(t, []any{"found", "found in Service handbook and card 44241"}, []any{found[1].State, found[1].Note})
	_, err = actions.Wanted.TakeOffer(ctx, curator, offer.ID, taken.Version, wanted.TakenOffer{})
	require.ErrorContains(t, err, "became a lot already")
	_, err = actions.Wanted.VoidOffer(ctx, curator, offer.ID, taken.Version)
	require.ErrorContains(t, err, "it stays")
	require.Empty(t, must(actions.Work.Deadlines(ctx, technician)), "what was taken ends no more")
}

func TestWantsAndOffersThatCannotBe(t *testing.T) {
	_, actions := newApp(t)
	none := int64(999)
	for _, in := range []wanted.WantInput{{}, {What: "a", Since: "2999-01-01"}, {What: "a", MachineID: &none},
		{What: "a\x00b"}} {
		_, err := actions.Wanted.AddWant(ctx, technician, in)
		require.Error(t, err, "%v", in)
	}
	for _, in := range []wanted.OfferInput{{}, {Title: "a", SeenOn: "tomorrow"}, {Title: "a", EndsOn: "31 May"}} {
		_, err := actions.Wanted.AddOffer(ctx, technician, in)
		require.Error(t, err, "%v", in)
	}
	_, err := actions.Wanted.Wants(ctx, viewer)
	require.Error(t, err)
	_, err = actions.Wanted.Offers(ctx, viewer)
	require.Error(t, err)
}
