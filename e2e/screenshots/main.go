// Command screenshots takes a picture of each main view from the sample world. It starts a
// throwaway application unless it is given the address of one.
package main

import (
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"time"

	"github.com/chromedp/chromedp"

	"frugalheron/demo"
	"frugalheron/e2e/browser"
	"frugalheron/e2e/sampleworld"
)

// scene is a view and the way to it.
type scene struct {
	name          string
	width, height int
	steps         []chromedp.Action
}

func scenes(url string) []scene {
	curator := demo.Accounts[0]
	// reckoned is what shows that the reckoning is there: its lines, or on a phone its one line.
	onBench := func(machine, reckoned string) []chromedp.Action {
		return []chromedp.Action{
			browser.SignIn(url, curator.Login, curator.Password),
			browser.Fill(browser.Labelled("Say or find"), machine), browser.See(browser.Text("Take it onto the bench")),
			browser.Keys("\r"),
			browser.See(browser.Text("As it sits")),
			browser.Click(`//nav[@aria-label="Stages"]//a[contains(., "Take stock")]`),
			browser.See(reckoned), browser.See(`//*[contains(@class, "cm-line-end")]`),
		}
	}
	bench := onBench("EH-0142", `//aside//h3/button[contains(., "RAM")]`)
	return []scene{
		{"start", 1280, 800,
			[]chromedp.Action{browser.SignIn(url, curator.Login, curator.Password),
				browser.See(browser.Text("Condition over the years")), browser.See(browser.Text("looks overdue"))}},
		{"collection", 1280, 800,
			[]chromedp.Action{browser.SignIn(url, curator.Login, curator.Password),
				browser.Click(browser.Link("Collection")), browser.See(browser.Text("EH-0161"))}},
		{"power-up", 1280, 800,
			[]chromedp.Action{browser.SignIn(url, curator.Login, curator.Password),
				chromedp.Navigate(url + "/bench/10/power-up"), browser.See(browser.Text("It permits nothing")),
				browser.See(browser.Text("3. Picture board"))}},
		{"arrive", 1280, 800,
			[]chromedp.Action{browser.SignIn(url, curator.Login, curator.Password),
				chromedp.Navigate(url + "/bench/10/arrive"), browser.See(browser.Text("nothing is known from")),
				chromedp.Evaluate(`scrollTo(0, 140)`, nil)}},
		{"look-over", 1280, 800,
			[]chromedp.Action{browser.SignIn(url, curator.Login, curator.Password),
				chromedp.Navigate(url + "/bench/7/look-over"), browser.See(`//*[contains(@class, "cm-line-end")]`),
				browser.See(browser.Text("disputed")), chromedp.Evaluate(known, nil)}},
		{"take-stock", 1280, 800, bench},
		{"identify", 1280, 800,
			[]chromedp.Action{browser.SignIn(url, curator.Login, curator.Password),
				chromedp.Navigate(url + "/bench/9/identify"), browser.See(browser.Text("What the model holds")),
				browser.See(browser.Text("the label says version 2.1"))}},
		{"board-picture", 1280, 800, []chromedp.Action{
			browser.SignIn(url, curator.Login, curator.Password), chromedp.Navigate(url + "/bench/9/identify"),
			browser.Click(`//section[@aria-label="Board pictures"]//a[contains(., "58 numbers")]`),
			browser.See(browser.Text("Without a number")),
			chromedp.Evaluate(`document.querySelector('[aria-label^="8:"]').focus()`, nil),
		}},
		{"set-up", 1280, 1000, []chromedp.Action{
			browser.SignIn(url, curator.Login, curator.Password), chromedp.Navigate(url + "/bench/9/set-up"),
			browser.See(browser.Text("Back to what worked")),
		}},
		{"at-a-glance", 1280, 1100, []chromedp.Action{
			browser.SignIn(url, curator.Login, curator.Password), chromedp.Navigate(url + "/bench/9"),
			browser.See(browser.Text("Through whose hands")), browser.See(browser.Text("Harbour pilot office")),
		}},
		{"say-or-find", 1280, 800,
			append(bench[:len(bench):len(bench)], browser.Keys("\x1b"), browser.Click(browser.Labelled("Say or find")),
				browser.Keys("u11 27128-25 8534"), browser.See(browser.Text("which leaves")))},
		{"stores", 1280, 800,
			[]chromedp.Action{browser.SignIn(url, curator.Login, curator.Password),
				chromedp.Navigate(url + "/stores/needs"), browser.See(browser.Text("short, 24 missing"))}},
		{"model", 1280, 800,
			[]chromedp.Action{browser.SignIn(url, curator.Login, curator.Password),
				chromedp.Navigate(url + "/library/models"), browser.Click(browser.Link("Meridian 2")),
				browser.See(browser.Text("Beside another"))}},
		{"make-good", 1280, 800,
			[]chromedp.Action{browser.SignIn(url, curator.Login, curator.Password),
				chromedp.Navigate(url + "/bench/1/make-good"), browser.See(browser.Text("Easily forgotten:"))}},
		{"library", 1280, 800, []chromedp.Action{
			browser.SignIn(url, curator.Login, curator.Password), browser.Click(browser.Link("Library")),
			browser.See(browser.Text("HX9030")),
			browser.Fill(browser.Labelled("Type number, by its start"), "41"), browser.Click(browser.Button("41256")),
			browser.See(browser.Text("EH-0142")),
		}},
		{"open-up", 1280, 800, []chromedp.Action{
			browser.SignIn(url, curator.Login, curator.Password), chromedp.Navigate(url + "/bench/9/open-up"),
			browser.Fill(browser.Labelled("Step 10: what comes off"), "Main board | 6x M3x6 pan PH1 @B2 | unplug J5"),
			browser.See(browser.Text("Must stay free.")), browser.See(browser.Text("Easily mistaken.")),
		}},
		{"judge", 1280, 800, []chromedp.Action{
			browser.SignIn(url, curator.Login, curator.Password), chromedp.Navigate(url + "/bench/1/judge"),
			browser.See(browser.Text("Over the years")),
			chromedp.Evaluate(`document.querySelector('section[aria-label="Survey"]').scrollIntoView()`, nil),
		}},
		{"diary", 1280, 900,
			[]chromedp.Action{browser.SignIn(url, curator.Login, curator.Password),
				chromedp.Navigate(url + "/diary"), browser.See(browser.Text("Go on with the round")),
				browser.See(browser.Text("Replace safety capacitors"))}},
		{"round-narrow", 390, 844,
			[]chromedp.Action{browser.SignIn(url, curator.Login, curator.Password),
				chromedp.Navigate(url + "/diary/rounds/1"), browser.See(browser.Text("Only seen")),
				chromedp.Evaluate(`document.querySelector("progress").scrollIntoView()`, nil),
				browser.Click(`//summary[starts-with(., "Take care")]`)}},
	}
}

// known brings what is known about a machine into view.
const known = `[...document.querySelectorAll("h2")].find((h) => h.textContent.startsWith("What is known")).scrollIntoView()`

func main() {
	out := flag.String("out", "docs/screenshots", "folder for the pictures")
	url := flag.String("url", "", "address of a running application with the sample world; empty to start one")
	only := flag.String("only", "", "names of scenes, with commas between them; empty for all")
	flag.Parse()
	if err := run(*out, *url, *only); err != nil {
		fmt.Fprintln(os.Stderr, "screenshots:", err)
		os.Exit(1)
	}
}

func run(out, url, only string) error {
	if url == "" {
		started, stop, err := sampleworld.Start()
		if err != nil {
			return err
		}
		defer stop()
		url = started
	}
	if err := os.MkdirAll(out, 0o755); err != nil {
		return err
	}
	for _, s := range scenes(url) {
		if only != "" && !strings.Contains(","+only+",", ","+s.name+",") {
			continue
		}
		if err := take(s, filepath.Join(out, s.name+".png")); err != nil {
			return fmt.Errorf("%s: %w", s.name, err)
		}
		fmt.Println(s.name)
	}
	return nil
}

// stillness lets the last drawing finish: fonts, marks, focus.
const stillness = 700 * time.Millisecond

func take(s scene, file string) error {
	b, err := browser.Start(s.width, s.height)
	if err != nil {
		return err
	}
	defer b.Close()
	var picture []byte
	if err := b.Do(append(s.steps, chromedp.Sleep(stillness), chromedp.CaptureScreenshot(&picture))...); err != nil {
		b.Do(chromedp.CaptureScreenshot(&picture))       //nolint:errcheck // the first error counts
		os.WriteFile(file+".failed.png", picture, 0o644) //nolint:errcheck
		return err
	}
	if breaches := b.Breaches(); len(breaches) > 0 {
		return fmt.Errorf("the page did what it must not: %s", strings.Join(breaches, "; "))
	}
	return os.WriteFile(file, picture, 0o644)
}
