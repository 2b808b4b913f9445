package app

import "fmt"

var (
	eventAsk            = NewEvent("ask", "question", func(_ string, _, a fields) string { return fmt.Sprintf("asked about %v: %v", a["subject"], a["text"]) })
	eventChangeQuestion = NewEvent("change question", "question", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the question about %v: %s", a["subject"], changes(b, a))
	})
	eventGuess = NewEvent("guess", "question", func(_ string, _, a fields) string {
		return fmt.Sprintf("guessed about %v: %v, because %v", a["subject"], a["guess"], a["reason"])
	})
	eventAnswerQuestion = NewEvent("answer question", "question", func(_ string, _, a fields) string {
		return fmt.Sprintf("answered the question about %v: %v (%v)", a["subject"], a["answer"], a["source"])
	})
	eventWeighMystery  = NewEvent("weigh mystery", "assembly", func(s string, _, a fields) string { return fmt.Sprintf("weighed what %s could be: %v", s, a["why"]) })
	eventDecideMystery = NewEvent("decide mystery", "assembly", func(s string, _, a fields) string {
		return fmt.Sprintf("decided that %s is %v (%v): %v", s, a["is"], a["sure"], a["reason"])
	})
)
