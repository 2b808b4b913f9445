// Package engines has the operations that judge what somebody sends, without any record: the same questions and answers as
// on the command line.
package engines

import (
	"context"
	"encoding/json"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/memfault"
	"frugalheron/core/population"
	"frugalheron/core/slotplan"
	"frugalheron/core/sums"
	"frugalheron/core/trials"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	register(api, "slots", "Whether cards go together in a backplane, and the least that has to move", inForm(slotplan.Plan))
	register(api, "memfault", "Which chip, line or select the lines of a memory test lead to", inForm(memfault.Judge))
	register(api, "trials", "Which change made the difference, and which trial would tell most", inForm(trials.Judge))
	register(api, "population", "Whether memory modules may stand in their sockets so, and what could instead",
		func(ctx context.Context, asked json.RawMessage) (any, error) {
			types, err := actions.Library.Read(ctx)
			if err != nil {
				return nil, err
			}
			judge := func(in population.Input) (population.Output, error) { return population.Judge(types, in) }
			return inForm(judge)(ctx, asked)
		})
	registerSum(api, "clock", "A clock from its crystal, against what a part may take", sums.ClockOf)
	registerSum(api, "disk", "What a disk holds, and what of it the firmware reaches", sums.DiskOf)
	registerSum(api, "resistor", "A resistor in series that leaves a level over a load", sums.ResistorOf)
	registerSum(api, "mains", "A plate against the mains of a place, and a transformer's size", sums.MainsOf)
	registerSum(api, "rails", "What is drawn of the rails of a supply, against what they give", sums.RailsOf)
}

// inForm reads a question in its fixed form, and answers it.
func inForm[In, Out any](judge func(In) (Out, error)) func(context.Context, json.RawMessage) (any, error) {
	return func(_ context.Context, asked json.RawMessage) (any, error) {
		var in In
		if err := json.Unmarshal(asked, &in); err != nil {
			return nil, action.Reject("body", err.Error())
		}
		out, err := judge(in)
		return out, input.Refused(err)
	}
}

func register(api *httpx.API, name, summary string, judge func(context.Context, json.RawMessage) (any, error)) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "judge-" + name, Metadata: httpx.AsksOnly(), Method: http.MethodPost, Path: "/api/" + name + "/read",
		Summary: summary, Description: "The forms of question and answer are those of heron " + name + " --json.",
		Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, _ action.Actor, in *struct{ Body json.RawMessage }) (*httpx.Output[any], error) {
		return httpx.Answer(judge(ctx, in.Body))
	})
}

func registerSum[In, Out any](api *httpx.API, name, summary string, of func(In) (Out, error)) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "sum-" + name, Metadata: httpx.AsksOnly(), Method: http.MethodPost, Path: "/api/sums/" + name + "/read",
		Summary: summary, Errors: httpx.ErrorsOfCreate,
	}, func(_ context.Context, _ action.Actor, in *struct{ Body In }) (*httpx.Output[Out], error) {
		out, err := of(in.Body)
		return httpx.Answer(out, input.Refused(err))
	})
}
