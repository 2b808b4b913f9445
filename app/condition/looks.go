package condition

import (
	"context"

	"frugalheron/core/condition"
	storecondition "frugalheron/store/condition"
	"frugalheron/store/pg"
)

// looks are when somebody last looked at what ages on a machine, or for 0 on a board that is in none.
func (k known) looks(ctx context.Context, h pg.Handle, machineID, assemblyID int64) (condition.Looks, error) {
	read, err := storecondition.ReadOuts(ctx, h, machineID, assemblyID)
	if err != nil {
		return condition.Looks{}, err
	}
	reads := make([]condition.ReadOut, len(read))
	for i, r := range read {
		reads[i] = condition.ReadOut{Assembly: r.AssemblyID, Designator: r.Designator, On: r.On, At: r.At}
	}
	made, err := storecondition.SurveysOf(ctx, h, machineID)
	if err != nil {
		return condition.Looks{}, err
	}
	surveys := make([]condition.Survey, len(made))
	for i, row := range made {
		if _, surveys[i], err = tellSurvey(row); err != nil {
			return condition.Looks{}, err
		}
	}
	done, err := storecondition.UpkeepLooks(ctx, h, machineID, assemblyID)
	if err != nil {
		return condition.Looks{}, err
	}
	upkeep := make([]condition.ClassLook, len(done))
	for i, row := range done {
		upkeep[i] = condition.ClassLook(row)
	}
	return condition.LooksOf(surveys, upkeep, k.said, k.readings, reads, k.told), nil
}
