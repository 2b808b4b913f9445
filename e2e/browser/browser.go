// Package browser drives a headless Chromium for journeys and screenshots. It notes what must not
// happen on any page: breaches of the content security policy and uncaught errors.
package browser

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"sync"
	"time"

	"github.com/chromedp/cdproto/log"
	"github.com/chromedp/cdproto/runtime"
	"github.com/chromedp/chromedp"
)

// Browser is a running Chromium with one page.
type Browser struct {
	ctx    context.Context
	cancel context.CancelFunc

	mu       sync.Mutex
	breaches []string
}

// ErrNoChromium is returned when no browser is installed.
var ErrNoChromium = errors.New("no Chromium is installed; on Debian: apt-get install chromium")

// Start opens a browser with an empty profile and a window of the given size in points.
func Start(width, height int) (*Browser, error) {
	program := ""
	for _, name := range []string{"chromium", "chromium-browser", "google-chrome"} {
		if path, err := exec.LookPath(name); err == nil {
			program = path
			break
		}
	}
	if program == "" {
		return nil, ErrNoChromium
	}
	profile, err := os.MkdirTemp("", "heron-browser-")
	if err != nil {
		return nil, err
	}
	options := append(chromedp.DefaultExecAllocatorOptions[:],
		chromedp.ExecPath(program), chromedp.NoSandbox, chromedp.DisableGPU, chromedp.UserDataDir(profile),
		chromedp.Flag("disable-dev-shm-usage", true), chromedp.Flag("disable-background-networking", true),
		chromedp.Flag("disable-component-update", true), chromedp.Flag("disable-sync", true), chromedp.NoFirstRun,
		chromedp.WindowSize(width, height),
	)
	allocator, stopAllocator := chromedp.NewExecAllocator(context.Background(), options...)
	ctx, stop := chromedp.NewContext(allocator)
	b := &Browser{ctx: ctx, cancel: func() {
		stop()
		stopAllocator()
		os.RemoveAll(profile)
	}}
	chromedp.ListenTarget(ctx, b.note)
	if err := chromedp.Run(ctx, log.Enable(), runtime.Enable(),
		chromedp.EmulateViewport(int64(width), int64(height))); err != nil {
		b.Close()
		return nil, fmt.Errorf("start Chromium: %w", err)
	}
	return b, nil
}

// note keeps what the page complains of. Answers of the server with an error status are no
// breach: journeys provoke them.
func (b *Browser) note(event any) {
	text := ""
	switch e := event.(type) {
	case *log.EventEntryAdded:
		if e.Entry.Source == log.SourceSecurity || e.Entry.Source == log.SourceViolation {
			text = e.Entry.Text
		}
	case *runtime.EventExceptionThrown:
		text = e.ExceptionDetails.Error()
	}
	if text != "" {
		b.mu.Lock()
		defer b.mu.Unlock()
		b.breaches = append(b.breaches, text)
	}
}

// Breaches lists what no page should have done.
func (b *Browser) Breaches() []string {
	b.mu.Lock()
	defer b.mu.Unlock()
	return b.breaches
}

// Close ends the browser.
func (b *Browser) Close() { b.cancel() }

// patience bounds one step: only a real failure reaches it, also where other programs keep the machine busy.
const patience = 2 * time.Minute

// Do runs steps one after the other.
func (b *Browser) Do(steps ...chromedp.Action) error {
	for i, step := range steps {
		ctx, cancel := context.WithTimeout(b.ctx, patience)
		err := chromedp.Run(ctx, step)
		cancel()
		if err != nil {
			return fmt.Errorf("step %d of %d: %w", i+1, len(steps), err)
		}
	}
	return nil
}
