#pragma once

#include <filesystem>
#include <stop_token>
#include <string>
#include <vector>

#include "core/drawing/drawing.h"

/// The shelf: a folder of plain SVG files of finished artwork, which people can also fill themselves. What is said
/// about a piece stands in its file, as other programs write it too: the name as the document's <title>, where it came
/// from as its <desc>, tags as subjects of the Dublin Core (elements 1.1) in its <metadata>.
namespace rim::io {

/// What is said about a piece of artwork. UTF-8.
struct ShelfLabel {
  std::string name;
  std::vector<std::string> tags;
  std::string source;  ///< where it came from, and under what permission

  friend bool operator==(const ShelfLabel&, const ShelfLabel&) = default;
};

/// A piece on the shelf.
struct ShelfPiece {
  std::filesystem::path file;
  ShelfLabel label;  ///< its name is that of the file when the file says none
  Drawing drawing;   ///< mm
};

/// Puts a drawing (mm) on the shelf, on a page as large as it is: into a file of its name that was not there before.
/// The folder is made when it is missing. Returns the file. Throws InputError when there is nothing to keep or no name,
/// and WriteError.
std::filesystem::path putOnShelf(const Drawing& drawing, const ShelfLabel& label, const std::filesystem::path& folder);

/// What lies on the shelf, by name. Files that are no drawings are left out; a folder that is missing is an empty
/// shelf. Throws Cancelled.
std::vector<ShelfPiece> piecesOn(const std::filesystem::path& folder, const std::stop_token& stop = {});

/// Reads what an SVG says about itself; nothing where it says nothing or is none.
ShelfLabel shelfLabelIn(const std::string& svg);

}  // namespace rim::io
