package browser

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// The steps address what people and screen readers see: roles with their names, and texts.

// Button finds a button by its name.
func Button(name string) string {
	quoted := literal(name)
	return `//button[normalize-space(.)=` + quoted + ` or @aria-label=` + quoted + `]`
}

// Link finds a link by its text.
func Link(text string) string { return `//a[normalize-space(.)=` + literal(text) + `]` }

// Labelled finds the field that a label names.
func Labelled(label string) string {
	quoted := literal(label)
	return `//*[@id=//label[normalize-space(.)=` + quoted + `]/@for] | //*[self::input or self::textarea or self::div][@aria-label=` + quoted + `]`
}

// Text finds the innermost element that holds a text.
func Text(text string) string {
	return `//*[contains(normalize-space(.), ` + literal(text) + `)][not(*[contains(normalize-space(.), ` + literal(text) + `)])]`
}

func literal(text string) string {
	if strings.Contains(text, `"`) {
		return `'` + text + `'`
	}
	return `"` + text + `"`
}

// Click waits until something shows and clicks it.
func Click(xpath string) chromedp.Action {
	return described("click "+xpath, chromedp.Click(xpath, chromedp.BySearch, chromedp.NodeVisible))
}

// See waits until something shows.
func See(xpath string) chromedp.Action {
	return described("see "+xpath, chromedp.WaitVisible(xpath, chromedp.BySearch))
}

// Gone waits until something is no longer there.
func Gone(xpath string) chromedp.Action {
	return described("not see "+xpath, chromedp.WaitNotPresent(xpath, chromedp.BySearch))
}

// Fill replaces what a field holds.
func Fill(xpath, text string) chromedp.Action {
	return described("fill "+xpath, chromedp.Tasks{
		chromedp.WaitVisible(xpath, chromedp.BySearch),
		chromedp.Focus(xpath, chromedp.BySearch),
		chromedp.KeyEvent("a", chromedp.KeyModifiers(input.ModifierCtrl)),
		chromedp.KeyEvent(kb.Delete),
		Paste(text),
	})
}

// Paste inserts text where the focus is, at once.
func Paste(text string) chromedp.Action {
	return chromedp.ActionFunc(func(ctx context.Context) error { return input.InsertText(text).Do(ctx) })
}

// Keys types where the focus is, key by key.
func Keys(keys string) chromedp.Action { return chromedp.KeyEvent(keys) }

// Chord presses a key together with modifiers.
func Chord(key string, modifiers ...input.Modifier) chromedp.Action {
	return chromedp.KeyEvent(key, chromedp.KeyModifiers(modifiers...))
}

// SignIn opens the application and signs in.
func SignIn(url, login, password string) chromedp.Action {
	return chromedp.Tasks{
		chromedp.Navigate(url),
		Fill(Labelled("Login"), login),
		Fill(Labelled("Password"), password),
		Click(Button("Sign in")),
		See(Button("Sign out")),
	}
}

// Evaluate runs a script and decodes what it gives.
func Evaluate(script string, into any) chromedp.Action { return chromedp.Evaluate(script, into) }

// Until waits until a script gives true.
func Until(what, script string) chromedp.Action {
	return described(what, chromedp.Poll(script, nil, chromedp.WithPollingTimeout(patience), chromedp.WithPollingInterval(20*time.Millisecond)))
}

// SheetText waits until the sheet editor with a label holds exactly a text.
func SheetText(label, want string) chromedp.Action {
	return Until(fmt.Sprintf("sheet %s to be %q", label, want), sheetText(label)+" === "+quoted(want))
}

// sheetText reads the lines that an editor shows, without what it says behind them.
func sheetText(label string) string {
	return `Array.from(document.querySelectorAll('[aria-label=` + quoted(label) + `] .cm-line')).map(line => {
		const copy = line.cloneNode(true); copy.querySelectorAll('.cm-line-end, .cm-placeholder').forEach(end => end.remove());
		return copy.textContent.replace(/\u200b/g, '') }).join('\n')`
}

func quoted(text string) string {
	encoded, _ := json.Marshal(text) // a string: cannot fail
	return string(encoded)
}

func described(what string, action chromedp.Action) chromedp.Action {
	return chromedp.ActionFunc(func(ctx context.Context) error {
		if err := action.Do(ctx); err != nil {
			return fmt.Errorf("%s: %w", what, err)
		}
		return nil
	})
}
