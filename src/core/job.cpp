#include "core/job.h"

#include "core/colour/reduce.h"
#include "core/picture/tone.h"

namespace rim {
namespace {

constexpr double kMmPerInch = 25.4;

double ownResolution(const Picture& picture) {
  return picture.dotsPerInch > 0 ? picture.dotsPerInch : kDefaultDotsPerInch;
}

}  // namespace

Job jobOn(Picture picture) {
  Job job;
  job.picture = picture;
  job.original = std::move(picture);
  return job;
}

bool sameWork(const Job& a, const Job& b) {
  return a.original.bgr == b.original.bgr && a.origin == b.origin && a.preparation == b.preparation &&
         a.colours == b.colours && a.trace == b.trace && a.size == b.size;
}

Job withPreparedPicture(Job job, std::stop_token stop) {
  job.picture = prepared(job.original, job.preparation, std::move(stop));
  return job;
}

Job withInks(Job job, const std::stop_token& stop) {
  job.inks.reset();
  if (!job.colours.on || job.picture.empty()) return job;
  const bool known = job.found && job.found->in == job.picture.bgr && job.found->count == job.colours.count;
  if (!known) {
    job.found = std::make_shared<const FoundInks>(
        FoundInks{job.picture.bgr, job.colours.count, reduced(job.picture, job.colours.count, stop)});
  }
  job.inks = std::make_shared<const InkMap>(decided(job.found->map, job.picture, job.colours.steps, stop));
  job.inkShares.reset();
  return job;
}

Job withInkShares(Job job) {
  if (job.inks) job.inkShares = std::make_shared<const std::vector<InkShare>>(sharesOf(*job.inks));
  return job;
}

Job traced(Job job, const WorkControl& control) {
  job = withInks(std::move(job), control.stop);
  if (job.inks) {
    job.tracing =
        std::make_shared<const Tracing>(traceInks(job.picture, *job.inks, job.colours.layout, job.trace, control));
    return job;
  }
  job.tracing = std::make_shared<const Tracing>(trace(job.picture, job.trace, control));
  return job;
}

double mmPerPixel(const Job& job) {
  const double byResolution = kMmPerInch / ownResolution(job.picture);
  const auto share = [byResolution](double mm, double px) { return px > 0 ? mm / px : byResolution; };
  const Box box = job.tracing ? boxOf(job.tracing->outlines) : Box{};
  switch (job.size.of) {
    case SizeWish::Of::PictureWidth:
      return share(job.size.value, job.picture.width());
    case SizeWish::Of::PictureHeight:
      return share(job.size.value, job.picture.height());
    case SizeWish::Of::OutlinesWidth:
      return share(job.size.value, box.width());
    case SizeWish::Of::OutlinesHeight:
      return share(job.size.value, box.height());
    case SizeWish::Of::Resolution:
      break;
  }
  return job.size.value > 0 ? kMmPerInch / job.size.value : byResolution;
}

Drawing drawingOf(const Job& job) {
  const double k = mmPerPixel(job);
  Drawing drawing;
  drawing.pageWidth = job.picture.width() * k;
  drawing.pageHeight = job.picture.height() * k;
  if (!job.tracing) return drawing;
  drawing.layers = job.tracing->layers;
  drawing.layerOf = job.tracing->layerOf;
  drawing.paths.reserve(job.tracing->outlines.size());
  for (const Path& outline : job.tracing->outlines) drawing.paths.push_back(scaled(outline, k));
  return drawing;
}

bool looksLightOnDark(const Picture& picture) {
  const auto threshold = otsuThreshold(picture.histogram);
  if (!threshold) return false;
  const cv::Mat& grey = *picture.grey;
  int dark = 0;
  int all = 0;
  const auto count = [&](int x, int y) {
    dark += grey.at<std::uint8_t>(y, x) < *threshold ? 1 : 0;
    ++all;
  };
  for (int x = 0; x < grey.cols; ++x) {
    count(x, 0);
    count(x, grey.rows - 1);
  }
  for (int y = 0; y < grey.rows; ++y) {
    count(0, y);
    count(grey.cols - 1, y);
  }
  return dark > 0.9 * all;
}

}  // namespace rim
