// Package people is about who the records speak of: people and organisations, which of them are private, and where
// texts name them; and about personal data that machines hold.
package people

import (
	"frugalheron/app/action"
	"frugalheron/store/people"
)

// Service does what is done about people.
type Service struct {
	kernel  *action.Kernel
	private privacyCache
}

// New returns it, and has the kernel follow what is public of texts, and look for names in what is written.
func New(kernel *action.Kernel) *Service {
	s := &Service{kernel: kernel}
	for _, kind := range people.PublicKinds {
		kernel.Follow("public "+string(kind), s.renewPublic(kind))
	}
	kernel.AtEnd(s.noteMentions)
	kernel.CanBeUndone(eventDecideMention, action.MayWriteSheets, s.undoDecideMention)
	return s
}
