package picture

import (
	"bytes"
	"encoding/binary"
)

// orientation reads how a JPEG lies from its Exif block (Exif 2.3, tag 0x0112,
// recalled from memory): 1 is upright, 6 and 8 lie on a side. A file that does
// not say, or says it wrongly, is upright.
func orientation(data []byte) int {
	for at := 2; at+4 <= len(data) && data[at] == 0xff; {
		marker, size := data[at+1], int(binary.BigEndian.Uint16(data[at+2:]))
		end := at + 2 + size
		if marker == 0xda || size < 2 || end > len(data) {
			return 1
		}
		if block := data[at+4 : end]; marker == 0xe1 && bytes.HasPrefix(block, []byte("Exif\x00\x00")) {
			return fromTIFF(block[6:])
		}
		at = end
	}
	return 1
}

func fromTIFF(t []byte) int {
	var order binary.ByteOrder = binary.LittleEndian
	switch {
	case bytes.HasPrefix(t, []byte("MM\x00*")):
		order = binary.BigEndian
	case !bytes.HasPrefix(t, []byte("II*\x00")):
		return 1
	}
	if len(t) < 8 {
		return 1
	}
	at := int(order.Uint32(t[4:]))
	if at < 8 || at+2 > len(t) {
		return 1
	}
	entries := int(order.Uint16(t[at:]))
	for i := range entries {
		e := at + 2 + 12*i
		if e+12 > len(t) {
			return 1
		}
		if order.Uint16(t[e:]) == 0x0112 {
			if o := int(order.Uint16(t[e+8:])); o >= 1 && o <= 8 {
				return o
			}
			return 1
		}
	}
	return 1
}
