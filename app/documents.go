package app

import "encoding/json"

// readKept reads what was kept whole, as JSON.
func readKept[T any](body string) (T, error) {
	var kept T
	err := json.Unmarshal([]byte(body), &kept)
	return kept, err
}

// toKeep writes what is kept whole, as JSON. What is kept are plain values, which never fail.
func toKeep(value any) string {
	encoded, err := json.Marshal(value)
	if err != nil {
		panic(err)
	}
	return string(encoded)
}
