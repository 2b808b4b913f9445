package blobs

import (
	"os"
	"time"
)

// LongAgo is when no file that is still being written was begun.
var LongAgo = time.Now().Add(-2 * partLasts)

// Fault says where writing a file fails: after so many bytes, or at a later step.
type Fault struct {
	Write       int
	Sync, Close bool
}

// OpenFaulty opens a folder whose disk fails so.
func OpenFaulty(where string, fault Fault, cause error) (*Store, error) {
	f, err := openFolder(where)
	if err != nil {
		return nil, err
	}
	f.create = func(home string) (partFile, error) {
		part, err := os.CreateTemp(home, partPrefix)
		return &faulty{part, fault, cause}, err
	}
	return &Store{f}, nil
}

type faulty struct {
	*os.File
	fault Fault
	cause error
}

func (f *faulty) Write(data []byte) (int, error) {
	if len(data) <= f.fault.Write {
		return f.File.Write(data)
	}
	n, _ := f.File.Write(data[:f.fault.Write])
	return n, f.cause
}

func (f *faulty) Sync() error {
	if f.fault.Sync {
		return f.cause
	}
	return f.File.Sync()
}

func (f *faulty) Close() error {
	err := f.File.Close()
	if f.fault.Close {
		return f.cause
	}
	return err
}
