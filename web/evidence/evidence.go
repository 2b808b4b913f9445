package evidence

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	"frugalheron/app/bench"
	appevidence "frugalheron/app/evidence"
	"frugalheron/app/inventory"
	"frugalheron/app/people"
	"frugalheron/core/custody"
	"frugalheron/core/facts"
	"frugalheron/web/httpx"
)

// Retraction says why a statement does not count any more.
type Retraction struct {
	Why string `json:"why" says:"text" maxLength:"400"`
}

// Vocabulary is what statements are written with.
type Vocabulary struct {
	Attributes []facts.Attribute `json:"attributes"`
	Kinds      []SourceKind      `json:"kinds" doc:"Kinds of sources, the strongest first"`
	Roles      []custody.Role    `json:"roles" doc:"Parts that somebody can have played in a thing's past"`
}

// SourceKind is a kind of source.
type SourceKind struct {
	Kind     facts.Source `json:"kind"`
	Words    string       `json:"words"`
	Strength int          `json:"strength" doc:"From 0 to 5; a rule of thumb"`
}

func vocabulary() Vocabulary {
	v := Vocabulary{Attributes: facts.Attributes(), Roles: custody.Roles()}
	for _, kind := range facts.Sources() {
		v.Kinds = append(v.Kinds, SourceKind{kind, kind.Words(), kind.Rank()})
	}
	return v
}

// MachineMoveInput is a move, and the version of the machine that it started from.
type MachineMoveInput struct {
	httpx.Versioned
	inventory.MachineMove
}

func registerEvidence(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-dossier", Method: http.MethodGet, Path: "/api/machines/{id}/dossier",
		Summary: "What is written down about a machine beside its boards", Errors: httpx.ErrorsOfRead,
		Description: "How it came, through whose hands it went, what is said of each attribute and what that amounts to, where it is.",
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[bench.Dossier], error) {
		return httpx.Answer(actions.Bench.Dossier(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "export-dossier", Method: http.MethodGet, Path: "/api/machines/{id}/dossier.json",
		Summary: "The same as a file, with the record, to be taken away", Errors: httpx.ErrorsOfRead,
		Description: "Private persons stand in it by their roles, whoever asks.",
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.File, error) {
		return httpx.MadeFile(actions.Bench.ExportDossier(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-vocabulary", Method: http.MethodGet, Path: "/api/vocabulary",
		Summary: "Attributes, kinds of sources and roles",
	}, func(context.Context, action.Actor, *struct{}) (*httpx.Output[Vocabulary], error) {
		return httpx.Answer(vocabulary(), nil)
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "state-evidence", Method: http.MethodPost, Path: "/api/machines/{id}/evidence",
		Summary:       "Note what a source says of an attribute",
		DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body appevidence.StatementInput
	}) (*httpx.Output[appevidence.Statement], error) {
		return httpx.Answer(actions.Evidence.StateEvidence(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "retract-statement", Method: http.MethodPost, Path: "/api/evidence/{id}/retract",
		Summary: "Say that a statement does not count any more", Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body Retraction
	}) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Evidence.RetractStatement(ctx, actor, in.ID, in.Body.Why)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-shared-identifiers", Method: http.MethodGet, Path: "/api/shared-identifiers",
		Summary: "Identifiers that a record shares with others", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Kind string `query:"kind" enum:"machine,assembly,lot" required:"true"`
		ID   int64  `query:"id" minimum:"1" required:"true"`
	}) (*httpx.Output[[]appevidence.SharedIdentifier], error) {
		return httpx.Answer(actions.Evidence.SharedIdentifiers(ctx, actor,
			appevidence.RecordRef{Kind: in.Kind, ID: in.ID}))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "decide-shared-identifier", Method: http.MethodPost, Path: "/api/shared-identifiers",
		Summary: "Say what an identifier means that two records share", Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor,
		in *struct {
			Body appevidence.SharedIdentifierDecision
		}) (*struct{}, error) {
		return nil, actions.Evidence.DecideSharedIdentifier(ctx, actor, in.Body)
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "tell-custody", Method: http.MethodPost, Path: "/api/machines/{id}/custody",
		Summary:       "Note who had a machine, when and where",
		DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body arrivals.CustodyInput
	}) (*httpx.Output[arrivals.Custody], error) {
		return httpx.Answer(actions.Arrivals.TellCustody(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "change-custody", Method: http.MethodPut, Path: "/api/custody/{id}",
		Summary: "Change a statement about a machine's past", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body struct {
			httpx.Versioned
			arrivals.CustodyInput
		}
	}) (*httpx.Output[arrivals.Custody], error) {
		return httpx.Answer(actions.Arrivals.ChangeCustody(ctx, actor, in.ID, in.Body.Version, in.Body.CustodyInput))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "retract-custody", Method: http.MethodPost, Path: "/api/custody/{id}/retract",
		Summary: "Say that a statement about the past does not count any more", Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body Retraction
	}) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Arrivals.RetractCustody(ctx, actor, in.ID, in.Body.Why)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "note-personal-data", Method: http.MethodPost, Path: "/api/machines/{id}/personal-data",
		Summary:     "Note that data of former owners is on a medium",
		Description: "Where and of what kind; never what it says.", DefaultStatus: http.StatusCreated,
		Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body people.PersonalDataInput
	}) (*httpx.Output[people.PersonalData], error) {
		return httpx.Answer(actions.People.NotePersonalData(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "decide-personal-data", Method: http.MethodPut, Path: "/api/personal-data/{id}",
		Summary: "Decide about data of former owners, or say that it was carried out", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body struct {
			httpx.Versioned
			people.PersonalDataInput
		}
	}) (*httpx.Output[people.PersonalData], error) {
		return httpx.Answer(actions.People.ChangePersonalData(ctx, actor, in.ID, in.Body.Version,
			in.Body.PersonalDataInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "list-open-personal-data", Method: http.MethodGet, Path: "/api/personal-data",
		Summary: "Data of former owners about which something is still to be decided or done",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]people.OpenData], error) {
		return httpx.Answer(actions.People.OpenPersonalData(ctx, actor))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "move-machine", Method: http.MethodPost, Path: "/api/machines/{id}/moves",
		Summary: "Move a machine to a place, lend it, or send it on its way", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body MachineMoveInput
	}) (*httpx.Output[inventory.MovedMachine], error) {
		return httpx.Answer(actions.Inventory.MoveMachine(ctx, actor, in.ID, in.Body.Version, in.Body.MachineMove))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "count-places", Method: http.MethodGet, Path: "/api/places/counts",
		Summary: "All places with what is there today",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]inventory.PlaceCount], error) {
		return httpx.Answer(actions.Inventory.CountPlaces(ctx, actor))
	})
}
