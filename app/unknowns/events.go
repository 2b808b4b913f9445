package unknowns

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventAsk = action.NewEvent("ask", "question", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("asked about %v: %v", a["subject"], a["text"])
	})
	eventChangeQuestion = action.NewEvent("change question", "question", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed the question about %v: %s", a["subject"], action.Changes(b, a))
	})
	eventGuess = action.NewEvent("guess", "question", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("guessed about %v: %v, because %v", a["subject"], a["guess"], a["reason"])
	})
	eventAnswerQuestion = action.NewEvent("answer question", "question", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("answered the question about %v: %v (%v)", a["subject"], a["answer"], a["source"])
	})
	eventWeighIdentification = action.NewEvent("weigh mystery", "assembly", func(s string, _, a action.Fields) string {
		return fmt.Sprintf("weighed what %s could be: %v", s, a["why"])
	})
	eventDecideIdentification = action.NewEvent("decide mystery", "assembly", func(s string, _, a action.Fields) string {
		return fmt.Sprintf("decided that %s is %v (%v): %v", s, a["is"], a["sure"], a["reason"])
	})
)
