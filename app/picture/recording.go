package picture

import (
	"bytes"
	"strings"
)

// recordings are the media types of video and sound that are taken, with what their names end with.
var recordings = map[string]string{
	"video/mp4": ".mp4", "video/quicktime": ".mov", "video/webm": ".webm", "audio/mp4": ".m4a", "audio/wav": ".wav",
	"audio/mpeg": ".mp3", "audio/flac": ".flac", "audio/ogg": ".ogg",
}

// recordingOf tells video and sound by how they begin; empty for anything else. brand is that of an ISO base media file.
func recordingOf(data []byte, brand string) string {
	starts := func(magic string) bool { return bytes.HasPrefix(data, []byte(magic)) }
	switch {
	case brand == "qt  ":
		return "video/quicktime"
	case strings.HasPrefix(brand, "M4A"):
		return "audio/mp4"
	case brand == "isom", brand == "iso2", brand == "iso4", brand == "iso5", brand == "iso6", brand == "avc1",
		brand == "mp41", brand == "mp42", brand == "dash", brand == "M4V ", strings.HasPrefix(brand, "3gp"):
		return "video/mp4"
	case starts("\x1aE\xdf\xa3") && bytes.Contains(data[:min(len(data), 64)], []byte("webm")):
		return "video/webm"
	case starts("RIFF") && len(data) > 12 && string(data[8:12]) == "WAVE":
		return "audio/wav"
	case starts("ID3"), len(data) > 2 && data[0] == 0xff && (data[1] == 0xfb || data[1] == 0xf3 || data[1] == 0xf2):
		return "audio/mpeg"
	case starts("fLaC"):
		return "audio/flac"
	case starts("OggS"):
		return "audio/ogg"
	}
	return ""
}
