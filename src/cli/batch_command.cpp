#include "cli/batch_command.h"

#include <algorithm>

#include "cli/command_parts.h"
#include "core/io/batch.h"
#include "core/io/job/recipe_file.h"
#include "core/picture/vips_library.h"

namespace rim::cli {
namespace {

struct BatchOptions {
  std::string recipe;
  std::vector<std::string> pictures;
  std::string folder;
  std::vector<std::string> as{"svg"};
  int jobs = 1;
  job::ExportSettings files;
  std::string report;
  bool quiet = false;
};

std::vector<std::string> endingsOf(const std::vector<std::string>& kinds) {
  std::vector<std::string> endings;
  for (const std::string& kind : kinds) {
    if (kind != "svg" && kind != "dxf") throw InputError("--as takes svg, dxf or both: --as dxf,svg.");
    const std::string ending = "." + kind;
    if (std::find(endings.begin(), endings.end(), ending) == endings.end()) endings.push_back(ending);
  }
  return endings;
}

int run(const BatchOptions& o) {
  picture::startVipsAlone();
  io::BatchWish wish;
  wish.endings = endingsOf(o.as);
  const job::Recipe recipe = about(o.recipe, [&] { return io::loadRecipe(o.recipe); });
  wish.recipeTime = std::filesystem::last_write_time(o.recipe);
  wish.folder = o.folder;
  wish.atOnce = static_cast<unsigned>(o.jobs);
  wish.files = o.files;
  wish.done = [&o](const io::BatchItem& item) {
    const bool failed = item.state == io::BatchItem::State::Failed;
    if (!failed && o.quiet) return;
    std::cerr << "snugrim-cli: " << item.picture.string() << ": "
              << (item.why.empty() ? io::nameOf(item.state) + "." : item.why) << '\n';
  };
  const std::vector<std::filesystem::path> pictures(o.pictures.begin(), o.pictures.end());
  const std::vector<io::BatchItem> items = about(o.folder, [&] { return io::runBatch(recipe, pictures, wish); });
  if (!o.report.empty()) writeReport(o.report, io::batchJson(items));
  const bool failed = std::any_of(items.begin(), items.end(),
                                  [](const io::BatchItem& item) { return item.state == io::BatchItem::State::Failed; });
  return failed ? kFoundSomething : kDone;
}

}  // namespace

void addBatchCommand(Program& program) {
  auto options = std::make_shared<BatchOptions>();
  Command command = program.command("batch", "does what a recipe says to many pictures");
  command.add("recipe", options->recipe, "a job (.snugrim) or a recipe (.json)").required();
  command.add("pictures", options->pictures, "the pictures").required();
  command.add("-o,--out", options->folder, "the folder for what is written, named like the pictures").required();
  command.add("--as", options->as, "what is written of each picture: svg, dxf or both")
      .separatedBy(',')
      .takes("KIND,...")
      .standsFor("svg");
  constexpr int kMostAtOnce = 64;
  command.add("--jobs", options->jobs, "so many pictures at the same time").within(1, kMostAtOnce).showsDefault();
  addFileForm(command, options->files);
  addTelling(command, options->report, options->quiet);
  command.does([options] { return runGuarded([&options] { return run(*options); }); });
}

}  // namespace rim::cli
