import { pictureURL } from '../../frame/pictures/pictures'
import type { Option } from '../../wire/types.gen'

/** The picture of an answer, if it has one; its text says what is on it. */
export function OptionPicture({ option }: { option: Option }) {
  return (
    option.picture && (
      <img
        src={pictureURL(option.picture)}
        alt=""
        className="relative max-h-[5em] max-w-[40%] shrink-0 rounded-[0.3em] object-contain"
      />
    )
  )
}
