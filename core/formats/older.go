package formats

import (
	"bytes"
	"encoding/json"
)

// renewed gives the board of a file of version 1 as version 2 has it: there a
// choice question named its answers itself, now its body does, by its kind.
func renewed(board json.RawMessage) (json.RawMessage, error) {
	reader := json.NewDecoder(bytes.NewReader(board))
	reader.UseNumber()
	var all map[string]any
	if err := reader.Decode(&all); err != nil {
		return nil, err
	}
	frames, _ := all["frames"].([]any)
	for _, f := range frames {
		frame, _ := f.(map[string]any)
		marks, _ := frame["prepared"].([]any)
		for _, m := range marks {
			mark, _ := m.(map[string]any)
			question, ok := mark["poll"].(map[string]any)
			if options, has := question["choices"]; ok && has {
				delete(question, "choices")
				question["kind"], question["choice"] = "choice", map[string]any{"options": options}
			}
		}
	}
	return json.Marshal(all)
}
