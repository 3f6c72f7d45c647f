#pragma once

#include <filesystem>
#include <optional>

#include "core/geometry/curve_form.h"
#include "core/io/dxf/write_dxf.h"
#include "core/job/job.h"

namespace rim::io {

enum class FileKind { Svg, Dxf };

/// The ending of a file's name in small letters, with its dot.
std::string endingOf(const std::filesystem::path& file);

/// The kind of file that the ending means, capital letters or not. Throws InputError for others.
FileKind fileKindOf(const std::filesystem::path& file);

/// The same for a file to be read.
FileKind drawingKindOf(const std::filesystem::path& file);

/// The outlines of the job as they will stand in such a file, in mm. Curves that become arcs or
/// lines stay within exportToleranceMm() of what was fitted; the box round all outlines stays exactly the same,
/// whatever they are made of.
Drawing drawingFor(const job::Job& job, FileKind kind, const job::ExportSettings& settings);

/// How far curves of a job may move when they become arcs or lines in a file, mm: what the settings say, else 0.08 of
/// the trace's tolerance.
double exportToleranceMm(const job::Job& job, const job::ExportSettings& settings);

/// The same for any drawing in mm: made of what the settings say, within `toleranceMm` (> 0) of what it was.
/// In a DXF no arc turns more than a quarter, but for full circles, which stand there as such.
Drawing inFormFor(Drawing drawing, FileKind kind, const job::ExportSettings& settings, double toleranceMm);

/// The drawing as an SVG's page takes it, which begins at (0, 0): what lies left of that or below, or farther away than
/// it is large, is moved to the page's corner, and the page grows to hold it.
Drawing onItsPage(Drawing drawing);

/// Where the drawing will lie in such a file, mm: as it is, or moved onto its page in an SVG.
Drawing asWritten(Drawing drawing, FileKind kind);

/// Writes a drawing that is in its form already, in the unit of the settings; what lies left of the page or below it is
/// moved onto it in an SVG. `toleranceMm` (> 0): how far an ellipse of a DXF may lie from the curves that it stands
/// for. Throws InputError or WriteError.
void writeDrawing(Drawing drawing, const std::filesystem::path& file, const job::ExportSettings& settings,
                  const std::string& note = {}, double toleranceMm = 0.001);

/// The SVG that writeDrawing() would write, as text, of a drawing in its form and place.
std::string svgTextOf(Drawing drawing, const job::ExportSettings& settings, const std::string& note = {});

/// A job's drawing (mm) where it will lie in such a file: the page of a picture's outlines is the picture, as long as
/// nothing was placed elsewhere; else asWritten().
Drawing asPlaced(const job::Job& job, Drawing drawing, FileKind kind);

/// What drawingFor() gives, placed so: what exportJob() writes.
Drawing writtenFor(const job::Job& job, FileKind kind, const job::ExportSettings& settings);

/// Writes what writtenFor() gives, and gives it. Throws InputError (unknown ending, curves in R12) or WriteError.
Drawing exportJob(const job::Job& job, const std::filesystem::path& file, const job::ExportSettings& settings);

}  // namespace rim::io
