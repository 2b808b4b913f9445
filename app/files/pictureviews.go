package files

import (
	"context"
	"errors"
	"fmt"
	"runtime/debug"
	"strconv"
	"time"

	"frugalheron/app/action"
	"frugalheron/app/picture"
	"frugalheron/store/blobs"
)

// Sides of the views that are made when a picture comes: one for lists, one for screens.
const (
	ThumbSide  = 320
	ScreenSide = 1600
)

// lookingBytes is what finding out what a file is takes at most: the decoder of HEIC works in memory of its own.
const lookingBytes = 16 << 20

// turnWithin is how long a picture waits until there is memory to decode it.
const turnWithin = 40 * time.Second

// withMemory does work that takes so many bytes, once they are there.
func (s *Service) withMemory(ctx context.Context, bytes int64, work func() error) error {
	waiting, stop := context.WithTimeout(ctx, turnWithin)
	defer stop()
	if err := s.memory.Acquire(waiting, bytes); err != nil {
		if ctx.Err() != nil {
			return ctx.Err()
		}
		return &action.Busy{What: "pictures are being read"}
	}
	defer s.memory.Release(bytes)
	err := work()
	if bytes >= muchMemory {
		// The next one must not begin beside what this one has thrown away.
		debug.FreeOSMemory()
	}
	return err
}

// muchMemory is from where on memory is given back at once.
const muchMemory = 64 << 20

func (s *Service) look(ctx context.Context, data []byte) (file picture.File, err error) {
	err = s.withMemory(ctx, lookingBytes, func() error {
		file, err = picture.Look(data)
		return err
	})
	return file, err
}

// keepFile keeps a file, and of a picture all views, and returns its sum. The views come first: whoever
// finds the original finds all of it.
func (s *Service) keepFile(ctx context.Context, file picture.File, data []byte) (string, error) {
	if file.Kind == picture.Picture {
		sides := []int{ThumbSide, ScreenSide}
		if needsFullView(file.Width, file.Height) && file.FullBytes() <= picture.MostMemory {
			sides = append(sides, 0)
		}
		if err := s.makeViews(ctx, blobs.Sum(data), file, data, sides...); err != nil {
			return "", err
		}
	}
	return s.blobs.PutContent(ctx, blobs.Originals, data, file.MediaType)
}

// needsFullView reports whether a view of all pixels is another than the one for screens.
func needsFullView(width, height int) bool { return max(width, height) > ScreenSide }

func (s *Service) makeViews(ctx context.Context, sum string, file picture.File, data []byte, sides ...int) error {
	needed := min(file.FullBytes(), picture.MostMemory)
	return s.withMemory(ctx, needed, func() error {
		views, err := file.Views(data, sides...)
		if err != nil {
			return err
		}
		for i, side := range sides {
			if err := s.blobs.PutView(ctx, sum, strconv.Itoa(side), views[i]); err != nil {
				return err
			}
		}
		return nil
	})
}

// View reads an upright view of a picture, without anything that the camera wrote beside it: the longest
// side has at most so many pixels, one of ThumbSide, ScreenSide, or 0 for all of them. A view that is
// missing or damaged is made anew.
func (s *Service) View(ctx context.Context, actor action.Actor, id int64, side int) (action.Content, error) {
	one, err := s.Attachment(ctx, actor, id)
	if err != nil {
		return action.Content{}, err
	}
	if one.Kind != string(picture.Picture) {
		return action.Content{}, action.ErrNotFound
	}
	if side == 0 && !needsFullView(one.Width, one.Height) {
		side = ScreenSide
	}
	content := action.Content{MediaType: "image/jpeg", FileName: fmt.Sprintf("picture-%d.jpg", id)}
	content.Data, err = s.blobs.View(ctx, one.SHA256, strconv.Itoa(side))
	if err == nil || !errors.Is(err, blobs.ErrNotFound) {
		return content, err
	}
	original, err := s.blobs.Content(ctx, blobs.Originals, one.SHA256)
	if err != nil {
		return content, err
	}
	file, err := s.look(ctx, original)
	if err != nil {
		return content, refusedFile(err)
	}
	if side == 0 && file.FullBytes() > picture.MostMemory {
		return content, action.Reject("size",
			fmt.Sprintf("all %d x %d pixels would take %d MB of memory to show, up to %d MB are taken; ask for the screen view, or for the original file",
				file.Width, file.Height, file.FullBytes()>>20, picture.MostMemory>>20))
	}
	if err := s.makeViews(ctx, one.SHA256, file, original, side); err != nil {
		return content, refusedFile(err)
	}
	content.Data, err = s.blobs.View(ctx, one.SHA256, strconv.Itoa(side))
	return content, err
}
