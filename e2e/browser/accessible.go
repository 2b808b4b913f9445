package browser

import (
	"context"
	"fmt"
	"os"
	"strings"

	"github.com/chromedp/chromedp"
)

// violation is what the accessibility rules find wrong.
type violation struct {
	ID    string   `json:"id"`
	Help  string   `json:"help"`
	Nodes []string `json:"nodes"`
}

// Accessible checks the page as it stands against the rules of axe-core, whose script lies in the
// given file, and fails with what it finds. Left out is what React Aria has read aloud: it names a pressed
// button by its id, and the form with that button may be closed by now.
func Accessible(script string) chromedp.Action {
	return chromedp.ActionFunc(func(ctx context.Context) error {
		source, err := os.ReadFile(script)
		if err != nil {
			return fmt.Errorf("axe-core is missing; make test installs it: %w", err)
		}
		found := []violation{}
		err = chromedp.Tasks{
			chromedp.Evaluate(string(source), nil),
			chromedp.Evaluate(`axe.run({exclude: ["[data-live-announcer]"]}, {resultTypes: ["violations"]}).then(result => result.violations.map(
				({id, help, nodes}) => ({id, help,
					nodes: nodes.slice(0, 3).map(node => node.html.slice(0, 200) + " " + node.failureSummary)})))`,
				&found, Awaited),
		}.Do(ctx)
		if err != nil {
			return err
		}
		problems := []string{}
		for _, v := range found {
			problems = append(problems, v.ID+": "+v.Help+"\n    "+strings.Join(v.Nodes, "\n    "))
		}
		if len(problems) > 0 {
			return fmt.Errorf("not accessible:\n  %s", strings.Join(problems, "\n  "))
		}
		return nil
	})
}
