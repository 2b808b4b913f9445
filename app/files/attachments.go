package files

import (
	"context"
	"errors"
	"fmt"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/app/picture"
	"frugalheron/core/identifier"
	"frugalheron/store/arrivals"
	"frugalheron/store/blobs"
	"frugalheron/store/files"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/parts"
	"frugalheron/store/wanted"
)

// KeepsFiles reports whether there is a store for uploads.
func (s *Service) KeepsFiles() bool { return s.blobs != nil }

// Owner is what a picture or document belongs to; all but one are nil.
type Owner = files.Owner

// isOfStores tells that it belongs to a drawer or an offer, which are for staff.
func isOfStores(o Owner) bool { return o.StockID != nil || o.OfferID != nil }

// Attach keeps a picture or a document. Once it returns, bytes and record are kept for good. The same
// content twice at the same owner is one attachment. Documents start for staff only: letters and bills
// name people.
func (s *Service) Attach(ctx context.Context, actor action.Actor, owner Owner, fileName string,
	data []byte) (Attachment, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return Attachment{}, err
	}
	if s.blobs == nil {
		return Attachment{}, action.Reject("file",
			"no store for pictures and documents is set up; start the application with --blobs")
	}
	name, err := picture.Name(fileName)
	if err != nil {
		return Attachment{}, refusedFile(err)
	}
	file, err := s.look(ctx, data)
	if err != nil {
		return Attachment{}, refusedFile(err)
	}
	kept := files.Blob{Bytes: int64(len(data)), MediaType: file.MediaType, Width: file.Width, Height: file.Height}
	if kept.SHA256, err = s.keepFile(ctx, file, data); err != nil {
		return Attachment{}, refusedFile(err)
	}
	var added files.Attachment
	err = s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if err := lockOwner(ctx, tx, owner); err != nil {
			return err
		}
		if err := files.PutBlob(ctx, tx, kept); err != nil {
			return err
		}
		before, err := files.AttachmentOfBlob(ctx, tx, kept.SHA256, owner)
		if err == nil && !before.Voided {
			added = before
			return nil
		}
		if err == nil {
			if err := files.VoidAttachment(ctx, tx, before.ID, false); err != nil {
				return err
			}
			added, err = files.AttachmentByID(ctx, tx, before.ID)
			if err != nil {
				return err
			}
			return action.Record(ctx, tx, actor, eventAttach, added.ID, owner.MachineID, nil, attachmentOf(added))
		}
		if !errors.Is(err, action.ErrNotFound) {
			return err
		}
		one := files.Attachment{Kind: string(file.Kind), Owner: owner, FileName: name, Blob: kept}
		one.Taken, one.StaffOnly = file.Taken, file.Kind != picture.Picture || isOfStores(owner)
		if strings.HasPrefix(file.MediaType, "text/") {
			one.Numbers = strings.Join(identifier.In(string(data)), "\n")
		}
		id, err := files.InsertAttachment(ctx, tx, actor.Account(), one)
		if err != nil {
			return err
		}
		if added, err = files.AttachmentByID(ctx, tx, id); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventAttach, id, owner.MachineID, nil, attachmentOf(added))
	})
	return attachmentOf(added), err
}

// HandOn gives pictures and documents of an offer to the lot that it became, within a transaction; they stay with the
// offer, too.
func (s *Service) HandOn(ctx context.Context, tx *sqlx.Tx, actor action.Actor, offerID, lotID int64) error {
	found, err := files.ListAttachments(ctx, tx, files.AttachmentQuery{Owner: Owner{OfferID: &offerID},
		Limit: mostHandedOn})
	for _, one := range found {
		one.Owner = Owner{AcquisitionID: &lotID}
		id, err := files.InsertAttachment(ctx, tx, actor.Account(), one)
		if err != nil {
			return err
		}
		added, err := files.AttachmentByID(ctx, tx, id)
		if err != nil {
			return err
		}
		if err := action.Record(ctx, tx, actor, eventAttach, id, nil, nil, attachmentOf(added)); err != nil {
			return err
		}
	}
	return err
}

// mostHandedOn bounds what a lot gets from its offer.
const mostHandedOn = 200

func refusedFile(err error) error {
	var refused *picture.RefusedError
	if errors.As(err, &refused) {
		return action.Reject("file", refused.Why)
	}
	return err
}

func lockOwner(ctx context.Context, tx *sqlx.Tx, owner Owner) error {
	var err error
	isGone := false
	switch {
	case owner.MachineID != nil:
		_, err = inventory.LockMachine(ctx, tx, *owner.MachineID)
	case owner.AcquisitionID != nil:
		_, err = arrivals.LockAcquisition(ctx, tx, *owner.AcquisitionID)
	case owner.StockID != nil:
		var drawer parts.Stock
		drawer, err = parts.LockStock(ctx, tx, *owner.StockID)
		isGone = drawer.Voided
	default:
		var offer wanted.Offer
		offer, err = wanted.LockOffer(ctx, tx, *owner.OfferID)
		isGone = offer.Voided
	}
	if err == nil && isGone {
		return errVoided
	}
	return err
}

// Original reads what was uploaded, as it is. A picture's original is for staff: it holds where it was
// taken. So is a document that is not shown to everybody.
func (s *Service) Original(ctx context.Context, actor action.Actor, id int64) (action.Content, error) {
	one, err := s.Attachment(ctx, actor, id)
	if err != nil {
		return action.Content{}, err
	}
	if one.Kind == string(picture.Picture) {
		if err := actor.Must(action.MayWriteSheets); err != nil {
			return action.Content{}, err
		}
	}
	content := action.Content{MediaType: one.MediaType,
		FileName: fmt.Sprintf("%s-%d%s", one.Kind, id, picture.Ending(one.MediaType))}
	content.Data, err = s.blobs.Content(ctx, blobs.Originals, one.SHA256)
	if err != nil || !actor.Hides() || !strings.HasPrefix(one.MediaType, "text/") {
		return content, err
	}
	p, err := s.people.PrivacyIn(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return action.Content{}, err
	}
	content.Data = []byte(p.Text(string(content.Data)))
	return content, nil
}

// Attachment reads what is said of a picture or document.
func (s *Service) Attachment(ctx context.Context, actor action.Actor, id int64) (Attachment, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return Attachment{}, err
	}
	one, err := files.AttachmentByID(ctx, s.kernel.Reader(ctx), id)
	if err == nil && (one.StaffOnly && actor.Hides() || s.blobs == nil) {
		return Attachment{}, action.ErrNotFound
	}
	return attachmentOf(one), err
}

// AttachmentPage is a page of pictures and documents.
type AttachmentPage struct {
	Attachments []Attachment `json:"attachments" doc:"In the order in which they came"`
	Next        int64        `json:"next" doc:"Give this as after to get the next page; 0 on the last"`
}

// Attachments lists the pictures and documents of an owner.
func (s *Service) Attachments(ctx context.Context, actor action.Actor, owner Owner, after int64,
	limit int) (AttachmentPage, error) {
	page := AttachmentPage{Attachments: []Attachment{}}
	roles := action.MayLook
	if isOfStores(owner) {
		roles = action.MayWriteSheets
	}
	if err := actor.Must(roles); err != nil {
		return page, err
	}
	found, err := files.ListAttachments(ctx, s.kernel.Reader(ctx), files.AttachmentQuery{
		Owner: owner, ForViewers: actor.Hides(), After: after, Limit: limit + 1,
	})
	if len(found) > limit {
		found = found[:limit]
		page.Next = found[limit-1].ID
	}
	page.Attachments = action.Views(found, attachmentOf)
	return page, err
}

// ChangeAttachment rewrites what is said of a picture or document, starting from a version.
func (s *Service) ChangeAttachment(ctx context.Context, actor action.Actor, id int64, version int,
	fields AttachmentInput) (Attachment, error) {
	err := input.CheckAll(input.Lines("caption", &fields.Caption), input.OneLine("view", &fields.View),
		input.CheckEDTF("taken", &fields.Taken), input.OneLine("language", &fields.Language),
		input.Lines("translation", &fields.Translation), input.OneLine("address", &fields.Address),
		input.Lines("numbers", &fields.Numbers))
	if err == nil && fields.Captured != "" {
		err = input.PastDay("captured", fields.Captured, actor.Today())
	}
	if err != nil {
		return Attachment{}, err
	}
	change := action.Change{Actor: actor, Roles: action.MayWriteSheets, Event: eventChangeAttachment, ID: id,
		Version: version}
	return attachments.Change(ctx, s.kernel, change, func(tx *sqlx.Tx, before files.Attachment) error {
		if before.Voided {
			return errVoided
		}
		if isOfStores(before.Owner) && !fields.StaffOnly {
			return action.Reject("staffOnly", "what belongs to a drawer or an offer is for staff; it stays so")
		}
		return files.UpdateAttachment(ctx, tx, id, files.AttachmentFields(fields))
	})
}

var errVoided = action.Reject("id", "it is deleted; take that back first")

var attachments = action.Records[files.Attachment, Attachment]{
	What: "what is said of it", Lock: files.LockAttachment, Read: files.AttachmentByID,
	Version: func(t files.Attachment) int { return t.Version },
	Told: func(t files.Attachment) any {
		return struct {
			FileName string `json:"fileName"`
			AttachmentInput
		}{t.FileName, AttachmentInput(t.AttachmentFields)}
	},
	Machine: func(t files.Attachment) *int64 { return t.MachineID },
	View:    attachmentOf,
}

// VoidAttachment strikes out a picture or document, and returns the event. Its bytes stay, and so does
// what cites it.
func (s *Service) VoidAttachment(ctx context.Context, actor action.Actor, id int64, version int) (int64, error) {
	var event int64
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		before, err := attachments.Locked(ctx, tx, id, version)
		if err != nil {
			return err
		}
		if before.Voided {
			return errVoided
		}
		if before.Cited > 0 {
			return action.Reject("id", fmt.Sprintf("%d statements cite it; withdraw them first", before.Cited))
		}
		if err := files.VoidAttachment(ctx, tx, id, true); err != nil {
			return err
		}
		event, err = action.RecordEvent(ctx, tx, actor, eventVoidAttachment, id, before.MachineID, attachmentOf(before),
			nil)
		return err
	})
	return event, err
}

func (s *Service) undoVoidAttachment(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		before, err := files.LockAttachment(ctx, tx, e.SubjectID)
		if err != nil {
			return err
		}
		if err := action.NewestStill(ctx, tx, e); err != nil {
			return err
		}
		if err := files.VoidAttachment(ctx, tx, e.SubjectID, false); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventTakeBackVoidOfAttachment, e.SubjectID, before.MachineID,
			attachmentOf(before), nil)
	})
}
