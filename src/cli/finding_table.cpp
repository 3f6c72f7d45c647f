#include "cli/finding_table.h"

#include <algorithm>
#include <array>
#include <iomanip>
#include <sstream>

namespace rim::cli {
namespace {

std::string row(const mend::Finding& f) {
  std::ostringstream text;
  text << std::left << std::setw(16) << mend::nameOf(f.kind) << std::right << std::fixed << std::setprecision(2)
       << std::setw(10) << f.at.x << std::setw(10) << f.at.y << "  " << mend::sentenceOf(f);
  if (!f.repair.empty()) text << " (" << f.repair << ")";
  return text.str();
}

}  // namespace

std::string cleanText(const Drawing& drawing) {
  const Paths paths = pathsOf(drawing);
  if (paths.empty()) return "There are no outlines in this drawing.";
  if (const std::size_t ofPen = openPenLines(drawing); ofPen > 0) {
    return std::to_string(paths.size()) + " outlines, " + std::to_string(ofPen) +
           " of them open lines of a pen, nothing drawn twice.";
  }
  const std::size_t open = countsOf(paths).open;
  if (open > 0) {
    return std::to_string(paths.size()) + " outlines, " + std::to_string(open) +
           " of them borders that branch off from others, nothing drawn twice.";
  }
  return paths.size() == 1 ? "1 outline, closed, nothing drawn twice."
                           : std::to_string(paths.size()) + " outlines, all closed, nothing drawn twice.";
}

void printTable(std::ostream& out, const std::vector<mend::Finding>& findings, const Drawing& drawing) {
  if (findings.empty()) {
    out << cleanText(drawing) << '\n';
    return;
  }
  constexpr std::size_t kMostOfAKind = 20;
  std::array<std::size_t, mend::kFindingKinds> counts{};
  out << "what                   x         y  (mm)\n";
  for (const mend::Finding& f : findings) {
    if (++counts[static_cast<std::size_t>(f.kind)] <= kMostOfAKind) out << row(f) << '\n';
  }
  for (std::size_t k = 0; k < counts.size(); ++k) {
    if (counts[k] > kMostOfAKind) {
      out << "... and " << counts[k] - kMostOfAKind << " more of kind "
          << mend::nameOf(static_cast<mend::FindingKind>(k)) << "; --report lists them all\n";
    }
  }
  out << findings.size() << (findings.size() == 1 ? " finding\n" : " findings\n");
}

}  // namespace rim::cli
