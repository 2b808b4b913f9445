package httpx

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"strconv"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"golang.org/x/sync/semaphore"
)

// uploadLasts is how long one file may take to arrive: a phone at the far end of a hall is slow.
const uploadLasts = 10 * time.Minute

// Limits of uploads under way in this process. A file is held in memory until it is kept.
const (
	uploadsOfOne    = 4         // that one person sends at once; more wait
	memoryOfUploads = 160 << 20 // bytes of all of them
	uploadWaits     = 40 * time.Second
)

// uploads counts what is on its way. It keeps nothing that another process would need.
type uploads struct {
	memory *semaphore.Weighted
	mu     sync.Mutex
	of     map[int64]*sender // by account
}

// sender is a person who sends files, and how many of them are here or wait.
type sender struct {
	turns   *semaphore.Weighted
	present int
}

func newUploads() *uploads {
	return &uploads{memory: semaphore.NewWeighted(memoryOfUploads), of: map[int64]*sender{}}
}

// admit waits for the turn of a person and for memory of so many bytes; leave gives both back.
func (u *uploads) admit(ctx context.Context, account, bytes int64) (leave func(), err error) {
	ctx, stop := context.WithTimeout(ctx, uploadWaits)
	defer stop()
	u.mu.Lock()
	from := u.of[account]
	if from == nil {
		from = &sender{turns: semaphore.NewWeighted(uploadsOfOne)}
		u.of[account] = from
	}
	from.present++
	u.mu.Unlock()
	gone := func() {
		u.mu.Lock()
		defer u.mu.Unlock()
		if from.present--; from.present == 0 {
			delete(u.of, account)
		}
	}
	if err := from.turns.Acquire(ctx, 1); err != nil {
		gone()
		return nil, err
	}
	if err := u.memory.Acquire(ctx, bytes); err != nil {
		from.turns.Release(1)
		gone()
		return nil, err
	}
	return func() {
		u.memory.Release(bytes)
		from.turns.Release(1)
		gone()
	}, nil
}

type uploadedKey struct{}

// Uploaded is the file that came with a request.
func Uploaded(ctx context.Context) []byte {
	data, _ := ctx.Value(uploadedKey{}).([]byte)
	return data
}

// TakesFile makes an operation one that a file is sent to, of at most so many bytes.
func (api *API) TakesFile(op huma.Operation, most int64) huma.Operation {
	op.RequestBody = &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{
		"application/octet-stream": {Schema: &huma.Schema{Type: "string", Format: "binary"}},
	}}
	op.Errors = append(op.Errors, http.StatusRequestEntityTooLarge, http.StatusTooManyRequests,
		http.StatusInsufficientStorage)
	op.Middlewares = append(op.Middlewares, func(ctx huma.Context, next func(huma.Context)) {
		api.receive(ctx, most, next)
	})
	return op
}

// receive reads a file into memory, once there is room for it, and passes it on.
func (api *API) receive(ctx huma.Context, most int64, next func(huma.Context)) {
	r, w := humachi.Unwrap(ctx)
	tooLarge := &Problem{Title: "Too large", Status: http.StatusRequestEntityTooLarge,
		Detail: fmt.Sprintf("A file of up to %d MB is taken; send a smaller one.", most>>20)}
	size := most
	if r.ContentLength > most {
		WriteProblem(w, tooLarge)
		return
	}
	if r.ContentLength >= 0 {
		size = r.ContentLength
	}
	leave, err := api.uploads.admit(ctx.Context(), actorOf(ctx.Context()).AccountID, size)
	if err != nil {
		w.Header().Set("Retry-After", strconv.Itoa(int(uploadWaits/time.Second)))
		WriteProblem(w, &Problem{Title: "Too many files at once", Status: http.StatusTooManyRequests,
			Detail: fmt.Sprintf(
				"%d files of yours are on their way already, or the server is busy with those of others; send it again in a moment.", uploadsOfOne)})
		return
	}
	defer leave()
	// The server's own limits are for requests without files.
	connection := http.NewResponseController(w)
	connection.SetReadDeadline(
		time.Now().Add(uploadLasts)) //nolint:errcheck // then the server's own limit holds
	connection.SetWriteDeadline(time.Now().Add(uploadLasts + requestLasts)) //nolint:errcheck // likewise
	data, err := readFile(r.Body, r.ContentLength, most)
	switch {
	case errors.Is(err, errTooLarge):
		WriteProblem(w, tooLarge)
	case errors.Is(err, os.ErrDeadlineExceeded):
		WriteProblem(w, &Problem{Title: "Too slow", Status: http.StatusRequestTimeout,
			Detail: fmt.Sprintf("The file did not arrive within %d minutes; nothing of it was kept.",
				int(uploadLasts/time.Minute))})
	case err != nil:
		WriteProblem(w, &Problem{Title: "Cut off", Status: http.StatusBadRequest,
			Detail: "The file did not arrive whole; nothing of it was kept. Send it again."})
	default:
		next(huma.WithValue(ctx, uploadedKey{}, data))
	}
}

var errTooLarge = errors.New("more than announced")

// readFile reads a body of a known size (-1 for one that is not known) without more memory than that.
func readFile(body io.Reader, size, most int64) ([]byte, error) {
	if size >= 0 {
		data := make([]byte, size)
		_, err := io.ReadFull(body, data)
		return data, err
	}
	var data bytes.Buffer
	n, err := io.Copy(&data, io.LimitReader(body, most+1))
	if err == nil && n > most {
		err = errTooLarge
	}
	return data.Bytes(), err
}
