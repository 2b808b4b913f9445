package dating

import (
	"context"

	"frugalheron/app/inventory"
	"frugalheron/core/dating"
	"frugalheron/store/pg"
)

// Estimate is when a machine was built by the date codes of its parts alone: no plate and no paper has a say in it, so that
// it can be laid beside these. It is nil where the codes tell nothing, or leave two times open.
func Estimate(ctx context.Context, h pg.Handle, machineID int64) (*dating.Span, error) {
	assemblies, err := inventory.AssembliesOf(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	parts, err := datedParts(ctx, h, assemblies)
	if err != nil {
		return nil, err
	}
	codes := make([]dating.Evidence, len(parts))
	for i, p := range parts {
		codes[i] = p.Evidence
	}
	result, err := dating.Date(codes, dating.DefaultRules())
	if err != nil || len(result.Estimates) > 1 || len(result.Conflicts) > 0 {
		return nil, err
	}
	return result.Estimate, nil
}
