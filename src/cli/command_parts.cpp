#include "cli/command_parts.h"

#include <unistd.h>

#include <fstream>
#include <map>

#include "core/io/common/safe_file.h"
#include "core/io/receipt.h"

namespace rim::cli {

void addFileForm(Command& command, job::ExportSettings& files) {
  const std::map<std::string, CurveForm> forms{
      {"beziers", CurveForm::Beziers}, {"arcs", CurveForm::Arcs}, {"lines", CurveForm::Lines}};
  const std::map<std::string, job::DxfVersion> versions{{"r12", job::DxfVersion::R12},
                                                        {"2000", job::DxfVersion::Dxf2000}};
  command.choice("--curves", files.curves, forms, "beziers, arcs or lines (default: beziers in SVG, arcs in DXF)")
      .takes("KIND");
  command.choice("--dxf", files.dxf, versions, "r12 or 2000 (default: 2000)").takes("VERSION");
  const std::map<std::string, Unit> units{{"mm", Unit::Millimetre}, {"in", Unit::Inch}};
  command.choice("--units", files.unit, units, "mm or in, of the file that is written (default: mm)").takes("UNIT");
}

void addTelling(Command& command, std::string& report, bool& quiet) {
  command.add("--report", report, "write a JSON report here (- is standard output)");
  command.flag("--quiet", quiet, "say nothing on standard error but errors");
}

void addReceipt(Command& command, ReceiptWish& wish, bool withStrict) {
  command.add("--receipt", wish.file, "read the file back and write what was found, as JSON; - is standard output")
      .takes("FILE");
  if (withStrict) command.flag("--strict", wish.strict, "exit 1 when the receipt is not clean");
}

int withReceipt(const ReceiptWish& wish, const std::string& written, Drawing meant, int code) {
  if (wish.file.empty() && !wish.strict) return code;
  const io::Receipt receipt = about(written, [&] { return io::receiptOf(written, &meant); });
  if (!wish.file.empty()) writeReport(wish.file, io::receiptJson(receipt));
  return wish.strict && !receipt.clean ? kFoundSomething : code;
}

void writeReport(const std::string& where, const std::string& text) {
  if (where == "-") {
    std::cout << text << std::flush;
    return;
  }
  about(where, [&] {
    io::writeBeside(where, [&text](const std::filesystem::path& beside) {
      std::ofstream out(beside, std::ios::binary);
      if (!(out << text << std::flush)) throw WriteError("the report could not be written: the disk may be full.");
    });
  });
}

WorkControl progressOnTerminal(const std::string& doing, bool quiet) {
  WorkControl control;
  if (!quiet && isatty(STDERR_FILENO) != 0) {
    control.progress = [doing, shown = -1](double done) mutable {
      const int percent = static_cast<int>(done * 100);
      if (percent != shown)
        std::cerr << "\r" << doing << ' ' << percent << " %" << (percent == 100 ? "\n" : "") << std::flush;
      shown = percent;
    };
  }
  return control;
}

}  // namespace rim::cli
