#pragma once

#include <string>
#include <string_view>

namespace rim::io::dxf {

/// A DXF as text in UTF-8, whatever it was written as:
/// a binary DXF (DXF reference, "Binary DXF Files", with codes of one byte as in R12 or of two) becomes pairs of lines;
/// text of files before 2007 is in the code page that $DWGCODEPAGE names, else in Windows' for Western Europe (DXF
/// reference, HEADER section). Bytes that mean nothing in it become U+FFFD. Throws InputError when a binary file is cut
/// off or damaged.
std::string dxfText(std::string_view bytes);

/// A name or text of a DXF with every "\U+XXXX" as the letter that it stands for.
std::string withDxfLetters(const std::string& text);

/// A UTF-8 text as a DXF before 2007 holds it: every letter beyond ASCII as "\U+XXXX", those beyond U+FFFF as "_".
std::string inDxfLetters(const std::string& utf8);

/// A text without the blanks, tabs and carriage returns at its ends.
std::string_view trimmed(std::string_view text);

/// A text with every byte that is no UTF-8 as U+FFFD.
std::string asUtf8(std::string_view text);

}  // namespace rim::io::dxf
