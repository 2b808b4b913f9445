package action

import "encoding/json"

// ReadKept reads what was kept whole, as JSON.
func ReadKept[T any](body string) (T, error) {
	var kept T
	err := json.Unmarshal([]byte(body), &kept)
	return kept, err
}

// ToKeep writes what is kept whole, as JSON. What is kept are plain values, which never fail.
func ToKeep(value any) string {
	encoded, err := json.Marshal(value)
	if err != nil {
		panic(err)
	}
	return string(encoded)
}
