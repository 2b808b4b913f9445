// Package accounts is about who may use the application: accounts, passwords, sign-in with its limits, and invitations.
package accounts

import (
	"golang.org/x/sync/semaphore"

	"frugalheron/app/action"
)

// Service does what is done about accounts.
type Service struct {
	kernel *action.Kernel
	hashes *semaphore.Weighted // passwords that are hashed at a time
}

// New returns it.
func New(kernel *action.Kernel) *Service {
	return &Service{kernel: kernel, hashes: semaphore.NewWeighted(hashesAtOnce)}
}
