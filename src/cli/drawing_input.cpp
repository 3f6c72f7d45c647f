#include "cli/drawing_input.h"

#include <map>

#include "cli/command_parts.h"
#include "core/io/job/job_file.h"
#include "core/io/read_drawing.h"
#include "core/job/stages.h"
#include "core/trace/outline/rules.h"

namespace rim::cli {
namespace {

const std::map<std::string, double>& mmPerUnit() {
  static const std::map<std::string, double> kUnits{{"mm", 1},          {"cm", 10},    {"m", 1000},
                                                    {"in", kMmPerInch}, {"ft", 304.8}, {"pt", kMmPerInch / 72},
                                                    {"px", kMmPerCssPx}};
  return kUnits;
}

std::vector<std::string> namesOf(const std::map<std::string, double>& units) {
  std::vector<std::string> names;
  for (const auto& [name, mm] : units) names.push_back(name);
  return names;
}

}  // namespace

void addDrawingInput(Command& command, DrawingInput& in) {
  command.add("drawing", in.file, "an SVG, a DXF or a job").required();
  command
      .add("--in-units", in.unit,
           "the unit of the drawing's own numbers, whatever the file says: mm, cm, m, in, ft, pt or px")
      .oneOf(namesOf(mmPerUnit()));
}

InputDrawing readInput(const DrawingInput& in, bool quiet) {
  io::ReadOptions options;
  if (!in.unit.empty()) options.mmPerUnit = mmPerUnit().at(in.unit);
  if (io::isJobFile(in.file)) {
    const job::Job job = about(in.file, [&] { return job::workedOut(io::loadJob(in.file)); });
    InputDrawing read;
    read.drawing = job::drawingOf(job);
    read.unitKnown = true;
    read.stock = job.stock;
    return read;
  }
  InputDrawing read{about(in.file, [&] { return io::readDrawing(in.file, options); }), {}};
  if (!quiet) {
    const auto say = [&in](const std::string& text) {
      std::cerr << "snugrim-cli: " << in.file << ": " << text << '\n';
    };
    for (const std::string& note : read.notes) say(note);
    if (!read.unitKnown) {
      const bool mm = read.mmPerUnit == 1;
      say(io::unitChoices(read) + (mm ? " Millimetres were taken" : " 96 px an inch were taken") +
          "; --in-units says otherwise.");
    }
    if (read.drawing.outlines.empty()) say("there are no outlines in this drawing.");
  }
  return read;
}

}  // namespace rim::cli
