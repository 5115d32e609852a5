// Package sound answers: is this a recording that everybody can hear, and how long is it?
//
// Recordings are WAV files with 16 bits a sample (RIFF, format 1): browsers make them of what they
// record or are given, and play them without a decoder that could be attacked.
package sound

import (
	"bytes"
	"encoding/binary"

	"alpenglow/core/refusal"
)

// Type is the media type of a recording.
const Type = "audio/wav"

// Bounds of a recording.
const (
	MaxBytes   = 4 << 20
	MaxSeconds = 120
	leastRate  = 8_000
	mostRate   = 48_000
)

// Recording is a recording as it is kept.
type Recording struct {
	Data    []byte
	Seconds float64
}

const header = 44

// Read reads a WAV file and gives it anew, with nothing else in it than the sound: one or two
// channels of 16 bits, at most two minutes.
func Read(data []byte) (Recording, error) {
	unreadable := refusal.New(refusal.SoundUnreadable)
	if len(data) > MaxBytes {
		return Recording{}, refusal.New(refusal.SoundLong)
	}
	if len(data) < 12 || !bytes.Equal(data[:4], []byte("RIFF")) || !bytes.Equal(data[8:12], []byte("WAVE")) {
		return Recording{}, unreadable
	}
	var format, samples []byte
	for rest := data[12:]; len(rest) >= 8; {
		size := int(binary.LittleEndian.Uint32(rest[4:8]))
		name, body := string(rest[:4]), rest[8:]
		if size < 0 || size > len(body) {
			return Recording{}, unreadable
		}
		switch {
		case name == "fmt " && format == nil:
			format = body[:size]
		case name == "data" && samples == nil:
			samples = body[:size]
		}
		rest = body[min(len(body), size+size%2):]
	}
	if len(format) < 16 || len(samples) == 0 {
		return Recording{}, unreadable
	}
	kind, channels := binary.LittleEndian.Uint16(format), binary.LittleEndian.Uint16(format[2:])
	rate, bits := binary.LittleEndian.Uint32(format[4:]), binary.LittleEndian.Uint16(format[14:])
	if kind != 1 || channels < 1 || channels > 2 || bits != 16 || rate < leastRate || rate > mostRate {
		return Recording{}, unreadable
	}
	frame := 2 * int(channels)
	samples = samples[:len(samples)/frame*frame]
	seconds := float64(len(samples)/frame) / float64(rate)
	if seconds > MaxSeconds {
		return Recording{}, refusal.New(refusal.SoundLong)
	}
	out := make([]byte, 0, header+len(samples))
	out = append(out, "RIFF"...)
	out = binary.LittleEndian.AppendUint32(out, uint32(header-8+len(samples)))
	out = append(out, "WAVEfmt "...)
	out = binary.LittleEndian.AppendUint32(out, 16)
	out = binary.LittleEndian.AppendUint16(out, 1)
	out = binary.LittleEndian.AppendUint16(out, channels)
	out = binary.LittleEndian.AppendUint32(out, rate)
	out = binary.LittleEndian.AppendUint32(out, rate*uint32(frame))
	out = binary.LittleEndian.AppendUint16(out, uint16(frame))
	out = binary.LittleEndian.AppendUint16(out, 16)
	out = append(out, "data"...)
	out = binary.LittleEndian.AppendUint32(out, uint32(len(samples)))
	return Recording{append(out, samples...), seconds}, nil
}
