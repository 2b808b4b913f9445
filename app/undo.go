package app

import (
	"context"

	"frugalheron/store"
)

// What can be taken back, by whom and how. What is taken back is written anew where it can be, so that undoing can itself
// be undone; the history keeps all of it.
func (a *App) canUndo() {
	a.Kernel.CanBeUndone(eventChangeMachine, MayKeepTheRecord, a.undoChangeMachine)
	a.Kernel.CanBeUndone(eventChangeAssembly, MayWriteSheets, a.undoChangeAssembly)
	a.Kernel.CanBeUndone(eventSaveSheet, MayWriteSheets, a.undoSaveSheet)
	a.Kernel.CanBeUndone(eventMoveAssembly, MayWriteSheets, a.undoMove)
	a.Kernel.CanBeUndone(eventStrikeAssembly, MayWriteSheets, a.undoStrike)
	a.Kernel.CanBeUndone(eventNote, MayWriteSheets, a.undoNote)
	a.Kernel.CanBeUndone(eventMoveMachine, MayWriteSheets, a.undoMoveMachine)
	a.Kernel.CanBeUndone(eventWithdrawStatement, MayWriteSheets, ofEvidence.undo(a.Kernel))
	a.Kernel.CanBeUndone(eventWithdrawCustody, MayKeepTheRecord, ofCustody.undo(a.Kernel))
	a.Kernel.CanBeUndone(eventChangeCustody, MayKeepTheRecord, a.undoChangeCustody)
	a.Kernel.CanBeUndone(eventChangeLot, MayKeepTheRecord, a.undoChangeLot)
	a.Kernel.CanBeUndone(eventStrikeAttachment, MayWriteSheets, a.undoStrikeAttachment)
	a.Kernel.CanBeUndone(eventStrikeRead, MayWriteSheets, a.undoStrikeRead)
	a.Kernel.CanBeUndone(eventStrikeConnector, MayWriteSheets, a.undoStrikeConnector)
	a.Kernel.CanBeUndone(eventStrikeStep, MayWriteSheets, a.undoStrikeStep)
	a.Kernel.CanBeUndone(eventEndTeardown, MayWriteSheets, a.undoEndTeardown)
	a.Kernel.CanBeUndone(eventStrikeFinding, MayWriteSheets, a.undoStrikeFinding)
	a.Kernel.CanBeUndone(eventMeasure, MayWriteSheets, a.undoMeasure)
	a.Kernel.CanBeUndone(eventStrikeMeasurement, MayWriteSheets, a.undoStrikeMeasurement)
	a.Kernel.CanBeUndone(eventStrikeLotItem, MayKeepTheRecord, a.undoStrikeLotItem)
	a.Kernel.CanBeUndone(eventDecideMention, MayWriteSheets, a.undoDecideMention)
	a.Kernel.CanBeUndone(eventNameType, MayKeepTheRecord, a.undoNameType)
	a.Kernel.CanBeUndone(eventChangeType, MayWriteSheets, a.undoChangeType)
	a.Kernel.CanBeUndone(eventForgetType, MayWriteSheets, a.undoForgetType)
}

// Undo takes back what an event of the history did. Where something was done to the same record
// since, nothing is undone: that would have to be taken back first.
func (a *App) Undo(ctx context.Context, actor Actor, eventID int64) error {
	if err := actor.must(MayLook); err != nil {
		return err
	}
	event, err := store.EventByID(ctx, a.Kernel.DB, readerOf(actor), eventID)
	if err != nil {
		return err
	}
	by, take := a.Kernel.UndoOf(event.Deed)
	if take == nil {
		return &Invalid{"event", "this cannot be undone"}
	}
	if err := actor.must(by); err != nil {
		return err
	}
	return take(ctx, actor, event)
}
