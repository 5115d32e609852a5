package sound_test

import (
	"bytes"
	"encoding/binary"
	"strings"
	"testing"

	"alpenglow/core/refusal"
	"alpenglow/core/sound"
)

// wav makes a file: chunks by name, each with what is in it.
func wav(chunks ...string) []byte {
	var body bytes.Buffer
	body.WriteString("WAVE")
	for i := 0; i+1 < len(chunks); i += 2 {
		body.WriteString(chunks[i])
		_ = binary.Write(&body, binary.LittleEndian, uint32(len(chunks[i+1])))
		body.WriteString(chunks[i+1])
		if len(chunks[i+1])%2 == 1 {
			body.WriteByte(0)
		}
	}
	return append(binary.LittleEndian.AppendUint32([]byte("RIFF"), uint32(body.Len())), body.Bytes()...)
}

func format(kind, channels uint16, rate uint32, bits uint16) string {
	b := binary.LittleEndian.AppendUint16(nil, kind)
	b = binary.LittleEndian.AppendUint16(b, channels)
	b = binary.LittleEndian.AppendUint32(b, rate)
	b = append(b, 0, 0, 0, 0, 0, 0)
	return string(binary.LittleEndian.AppendUint16(b, bits))
}

func TestRead(t *testing.T) {
	second := strings.Repeat("ab", 16_000)
	r, err := sound.Read(
		wav("LIST", "who made it", "fmt ", format(1, 1, 16_000, 16), "data", second+"x", "more", "script"),
	)
	if err != nil || r.Seconds != 1 || len(r.Data) != 44+32_000 || bytes.Contains(r.Data, []byte("script")) ||
		bytes.Contains(r.Data, []byte("who made it")) {
		t.Fatalf("%v: %v s, %d bytes", err, r.Seconds, len(r.Data))
	}
	again, err := sound.Read(r.Data)
	if err != nil || !bytes.Equal(again.Data, r.Data) {
		t.Errorf("read again it is another: %v", err)
	}
	if r, err := sound.Read(wav("fmt ", format(1, 2, 16_000, 16), "data", second)); err != nil || r.Seconds != .5 {
		t.Errorf("two channels: %v, %v s", err, r.Seconds)
	}
	for name, data := range map[string][]byte{
		"nothing":      nil,
		"another file": []byte("OggS and more of it"),
		"no format":    wav("data", second),
		"no sound":     wav("fmt ", format(1, 1, 16_000, 16)),
		"compressed":   wav("fmt ", format(85, 1, 16_000, 16), "data", second),
		"eight bits":   wav("fmt ", format(1, 1, 16_000, 8), "data", second),
		"no channel":   wav("fmt ", format(1, 0, 16_000, 16), "data", second),
		"no rate":      wav("fmt ", format(1, 1, 0, 16), "data", second),
		"a length too long": append(wav("fmt ", format(1, 1, 16_000, 16)), 'd', 'a', 't', 'a', 0xff, 0xff, 0xff, 0xff,
			1, 2),
		"a short format": wav("fmt ", "ab", "data", second),
		"too long":       wav("fmt ", format(1, 1, 8_000, 16), "data", strings.Repeat("ab", 121*8_000)),
		"too large":      make([]byte, sound.MaxBytes+1),
	} {
		if _, err := sound.Read(data); refusal.Of(err) == nil {
			t.Errorf("%s: %v", name, err)
		}
	}
}

func FuzzRead(f *testing.F) {
	f.Add(wav("fmt ", format(1, 1, 16_000, 16), "data", "abcd"))
	f.Fuzz(func(t *testing.T, data []byte) {
		r, err := sound.Read(data)
		if err != nil {
			if refusal.Of(err) == nil {
				t.Fatal(err)
			}
			return
		}
		if again, err := sound.Read(r.Data); err != nil || !bytes.Equal(again.Data, r.Data) ||
			again.Seconds != r.Seconds {
			t.Fatalf("not the same again: %v", err)
		}
	})
}
