package browser

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/cdproto/runtime"
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
	return `//*[@id=//label[normalize-space(.)=` + quoted +
		`]/@for] | //*[self::input or self::textarea or self::div][@aria-label=` + quoted + `]`
}

// Text finds the innermost element that holds a text.
func Text(text string) string {
	return `//body//*[contains(normalize-space(.), ` + literal(text) + `)][not(*[contains(normalize-space(.), ` +
		literal(text) + `)])]`
}

func literal(text string) string {
	if strings.Contains(text, `"`) {
		return `'` + text + `'`
	}
	return `"` + text + `"`
}

// Click waits until something shows and stays where it is, and clicks the middle of what is in sight of it: where a form
// opens above, what is below moves, and a click that was aimed before would miss it. One that missed is made again, as a
// person would.
func Click(xpath string) chromedp.Action {
	return described("click "+xpath, chromedp.ActionFunc(func(ctx context.Context) error {
		for missed := true; missed; {
			if err := chromedp.WaitVisible(xpath, chromedp.BySearch).Do(ctx); err != nil {
				return err
			}
			var at struct{ X, Y float64 }
			if err := chromedp.Evaluate(fmt.Sprintf(resting, xpath), &at, Awaited).Do(ctx); err != nil {
				if ctx.Err() != nil {
					return err
				}
				continue // it moved on to another page; the click waits for what is there
			}
			if err := chromedp.MouseClickXY(at.X, at.Y).Do(ctx); err != nil {
				return err
			}
			if err := chromedp.Evaluate(`window.pointerMissed === true`, &missed).Do(ctx); err != nil {
				return ctx.Err() // the click led to another page
			}
		}
		return nil
	}))
}

// resting resolves to the middle of what is in sight of what an XPath names, once it stays where it is; and has the page
// remember in pointerMissed whether the next press, from its going down to its coming up, was on it.
const resting = `new Promise(done => {
	const named = () => document.evaluate(%q, document, null, XPathResult.FIRST_ORDERED_NODE_TYPE, null).singleNodeValue
	const isIt = (target) => {
		const it = named()
		return it !== null && (it.contains(target) || target?.closest?.("label")?.contains(it) === true)
	}
	const watch = () => {
		window.pointerMissed = true
		let down = false
		const once = { capture: true, once: true }
		addEventListener("pointerdown", ({ target }) => { down = isIt(target) }, once)
		addEventListener("pointerup", ({ target }) => { window.pointerMissed = !down || !isIt(target) }, once)
	}
	const middle = (from, to, end) => (Math.max(from, 0) + Math.min(to, end)) / 2
	let place = "", frames = 0
	const look = () => {
		const it = named()
		it?.scrollIntoViewIfNeeded()
		// Its first line: between the lines of a text there may be nothing of it.
		const { left, right, top, bottom } = it?.getClientRects()[0] ?? {}
		const x = middle(left, right, innerWidth), y = middle(top, bottom, innerHeight)
		// What a bar lies over is scrolled from under it, as a person would.
		if (it && !isIt(document.elementFromPoint(x, y))) it.scrollIntoView({ block: "center" })
		const now = [left, right, top, bottom].join()
		frames = it && now === place ? frames + 1 : 0
		place = now
		if (frames <= 3) return requestAnimationFrame(look)
		watch()
		done({ x, y })
	}
	look()
})`

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
		Chord("a", input.ModifierCtrl),
		Keys(kb.Delete),
		Paste(text),
	})
}

// Paste inserts text where the focus is, at once.
func Paste(text string) chromedp.Action {
	return chromedp.ActionFunc(func(ctx context.Context) error { return input.InsertText(text).Do(ctx) })
}

// Keys types where the focus is, key by key.
func Keys(keys string) chromedp.Action { return press(keys, input.ModifierNone) }

// Chord presses a key together with a modifier.
func Chord(key string, modifier input.Modifier) chromedp.Action { return press(key, modifier) }

// press sends each key down, with the text it gives, and up again. The text travels with the key,
// as from a keyboard: a page that takes the key for itself does not get the text as well.
func press(keys string, modifier input.Modifier) chromedp.Action {
	return chromedp.ActionFunc(func(ctx context.Context) error {
		for _, r := range keys {
			key, known := kb.Keys[r]
			if !known {
				return fmt.Errorf("no key gives %q", r)
			}
			modifiers := modifier
			if key.Shift {
				modifiers |= input.ModifierShift
			}
			text := key.Text
			if modifier != input.ModifierNone {
				text = ""
			}
			for _, kind := range []input.KeyType{input.KeyDown, input.KeyUp} {
				event := input.DispatchKeyEvent(kind).WithKey(key.Key).WithCode(key.Code).
					WithWindowsVirtualKeyCode(key.Windows).WithModifiers(modifiers)
				if kind == input.KeyDown {
					event = event.WithText(text)
				}
				if err := event.Do(ctx); err != nil {
					return err
				}
			}
		}
		return nil
	})
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

// SignOut signs out, and waits until that has happened: who goes elsewhere at once takes the request away.
func SignOut() chromedp.Action {
	return chromedp.Tasks{Click(Button("Sign out")), See(Labelled("Login"))}
}

// Evaluate runs a script and decodes what it gives.
func Evaluate(script string, into any) chromedp.Action { return chromedp.Evaluate(script, into) }

// Awaited waits for the promise that a script gives.
func Awaited(p *runtime.EvaluateParams) *runtime.EvaluateParams { return p.WithAwaitPromise(true) }

// Until waits until a script gives true.
func Until(what, script string) chromedp.Action {
	poll := chromedp.Poll(script, nil, chromedp.WithPollingTimeout(patience),
		chromedp.WithPollingInterval(20*time.Millisecond))
	return described(what, chromedp.ActionFunc(func(ctx context.Context) error {
		for {
			err := poll.Do(ctx)
			if err == nil || ctx.Err() != nil || !strings.Contains(err.Error(), "Cannot find context") {
				return err
			}
			// The page has just been left for another; that one is waited for.
		}
	}))
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
