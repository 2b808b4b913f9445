package input

import (
	"fmt"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"frugalheron/app/action"
)

// WithinLimits checks what did not come through an operation of the API, as an entry of a file, against the limits that
// its fields are declared with: maxLength and enum of texts, minimum and maximum of numbers.
func WithinLimits(fields any) error {
	v := reflect.ValueOf(fields)
	for i := range v.NumField() {
		declared, value := v.Type().Field(i), v.Field(i)
		name, _, _ := strings.Cut(declared.Tag.Get("json"), ",")
		switch {
		case declared.Anonymous:
			if err := WithinLimits(value.Interface()); err != nil {
				return err
			}
		case value.Kind() == reflect.String:
			text := value.String()
			if most, err := strconv.Atoi(declared.Tag.Get("maxLength")); err == nil && utf8.RuneCountInString(text) > most {
				return action.Reject(name, fmt.Sprintf("longer than %d characters; shorten it", most))
			}
			if one := declared.Tag.Get("enum"); one != "" && text != "" && !slices.Contains(strings.Split(one, ","), text) {
				return action.Reject(name, fmt.Sprintf("%q is none of %s", text, strings.ReplaceAll(one, ",", ", ")))
			}
		case value.CanInt():
			if err := inRange(name, declared.Tag, float64(value.Int())); err != nil {
				return err
			}
		case value.CanFloat():
			if err := inRange(name, declared.Tag, value.Float()); err != nil {
				return err
			}
		}
	}
	return nil
}

func inRange(name string, tag reflect.StructTag, value float64) error {
	least, errLeast := strconv.ParseFloat(tag.Get("minimum"), 64)
	most, errMost := strconv.ParseFloat(tag.Get("maximum"), 64)
	if errLeast == nil && value < least || errMost == nil && value > most {
		return action.Reject(name, fmt.Sprintf("%v is not between %v and %v", value, least, most))
	}
	return nil
}
