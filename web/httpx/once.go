package httpx

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"

	"frugalheron/app/action"
)

// onceHeader names a request that may be sent again. The same key gives the same answer for a day, and nothing is
// done twice.
const onceHeader = "Idempotency-Key"

// mostKey is how long a key may be.
const mostKey = 200

// A second request waits so long for the first, and looks so often whether it is answered.
const (
	firstWithin = 20 * time.Second
	lookEvery   = 100 * time.Millisecond
)

// givenUpAfter is when a request that did nothing yet is begun anew by the next one with its key. Only one of both can
// be done, so this need not be long.
const givenUpAfter = 5 * time.Second

// Keys of what operations say of themselves in their metadata.
const (
	secretKey = "secret"
	asksKey   = "asks only"
)

// AnswersSecret marks operations whose answers are shown once and kept nowhere.
func AnswersSecret() map[string]any { return map[string]any{secretKey: true} }

// AsksOnly marks operations that change nothing although they are sent like those that do.
func AsksOnly() map[string]any { return map[string]any{asksKey: true} }

// once answers a request that carries a key as it was answered before, if it was.
func (api *API) once(ctx huma.Context, next func(huma.Context)) {
	key, actor := ctx.Header(onceHeader), actorOf(ctx.Context())
	asks, _ := ctx.Operation().Metadata[asksKey].(bool)
	if asks || key == "" || actor.AccountID == 0 || ctx.Method() == http.MethodGet || ctx.Method() == http.MethodHead {
		next(ctx)
		return
	}
	r, w := humachi.Unwrap(ctx)
	if len(key) > mostKey || bytes.ContainsFunc([]byte(key), func(c rune) bool { return c <= ' ' || c > '~' }) {
		WriteProblem(w, &Problem{Title: "Not acceptable as it is", Status: http.StatusBadRequest,
			Detail: fmt.Sprintf("%s holds up to %d letters, figures and signs without spaces.", onceHeader, mostKey)})
		return
	}
	fingerprint, err := fingerprintOf(r, ctx.Operation())
	if err != nil {
		WriteProblem(w, &Problem{Title: "Cut off", Status: http.StatusBadRequest,
			Detail: "The request did not arrive whole; send it again."})
		return
	}
	asked := action.Request{Key: key, Fingerprint: fingerprint, GivenUp: givenUpAfter}
	begun, answered, err := api.kernel.Begin(ctx.Context(), actor, asked)
	for deadline := time.Now().Add(firstWithin); errors.Is(err, action.ErrStillAtWork) && time.Now().Before(deadline) &&
		ctx.Context().Err() == nil; {
		time.Sleep(lookEvery)
		begun, answered, err = api.kernel.Begin(ctx.Context(), actor, asked)
	}
	if err != nil {
		WriteError(w, r, err)
		return
	}
	if answered != nil {
		w.Header().Set("Idempotency-Replayed", "true")
		writeAnswer(w, *answered)
		return
	}
	held := &heldAnswer{ResponseWriter: w}
	next(humachi.NewContext(ctx.Operation(), r.WithContext(begun), held))
	answer := action.Answered{Status: max(held.status, http.StatusOK), MediaType: w.Header().Get("Content-Type"),
		Body: held.body.Bytes()}
	// Whoever asked may have hung up: that is when the answer is asked for once more.
	keeping, stop := context.WithTimeout(context.WithoutCancel(begun), 5*time.Second)
	defer stop()
	isSecret, _ := ctx.Operation().Metadata[secretKey].(bool)
	switch {
	case answer.Status >= 300:
		err = api.kernel.Refuse(keeping)
	case isSecret:
		err = api.kernel.Finish(keeping, shownOnce)
	default:
		err = api.kernel.Finish(keeping, answer)
	}
	if err != nil {
		// What was asked for is done, and said so; only who asks once more is told less.
		slog.Error("the answer of a request could not be kept", "cause", err)
	}
	writeAnswer(w, answer)
}

// shownOnce is what is kept in place of an answer that is shown once.
var shownOnce = action.Answered{Status: http.StatusConflict, MediaType: "application/problem+json",
	Body: []byte(`{"title":"Done already","status":409,"detail":"This was done already. What its answer held is shown once only; make another."}`)}

func writeAnswer(w http.ResponseWriter, answer action.Answered) {
	if answer.MediaType != "" {
		w.Header().Set("Content-Type", answer.MediaType)
	}
	w.WriteHeader(answer.Status)
	w.Write(answer.Body) //nolint:errcheck // nobody is left to tell
}

// fingerprintOf tells requests apart. Of a file that is sent, its size has to do: it is not read yet.
func fingerprintOf(r *http.Request, op *huma.Operation) (string, error) {
	sum := sha256.New()
	fmt.Fprintf(sum, "%s %s %d\n", r.Method, r.URL.RequestURI(), r.ContentLength)
	if !isFile(r) {
		most := op.MaxBodyBytes
		if most <= 0 {
			most = 1 << 20
		}
		body, err := io.ReadAll(io.LimitReader(r.Body, most+1))
		if err != nil {
			return "", err
		}
		sum.Write(body) //nolint:errcheck // a sum takes everything
		r.Body = io.NopCloser(io.MultiReader(bytes.NewReader(body), r.Body))
	}
	return hex.EncodeToString(sum.Sum(nil)), nil
}

// heldAnswer holds an answer back until it is complete.
type heldAnswer struct {
	http.ResponseWriter
	status int
	body   bytes.Buffer
}

// WriteHeader keeps the first status.
func (h *heldAnswer) WriteHeader(status int) {
	if h.status == 0 {
		h.status = status
	}
}

// Write holds the bytes back.
func (h *heldAnswer) Write(data []byte) (int, error) { return h.body.Write(data) }

// Unwrap lets deadlines be set on the connection itself.
func (h *heldAnswer) Unwrap() http.ResponseWriter { return h.ResponseWriter }
