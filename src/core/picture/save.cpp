#include "core/picture/save.h"

#include <opencv2/imgproc.hpp>
#include <vips/vips8>

#include "core/error.h"
#include "core/picture/vips_library.h"

namespace rim {

std::vector<std::byte> pngOf(const Picture& picture) {
  startVips();
  cv::Mat rgb;
  cv::cvtColor(*picture.bgr, rgb, cv::COLOR_BGR2RGB);
  try {
    const auto image = vips::VImage::new_from_memory(rgb.data, rgb.total() * rgb.elemSize(), rgb.cols, rgb.rows,
                                                     rgb.channels(), VIPS_FORMAT_UCHAR);
    // Quick rather than small: a job is saved often.
    constexpr int kQuickly = 3;
    VipsBlob* blob = image.pngsave_buffer(vips::VImage::option()->set("compression", kQuickly));
    std::size_t size = 0;
    const auto* data = static_cast<const std::byte*>(vips_blob_get(blob, &size));
    std::vector<std::byte> bytes(data, data + size);
    vips_area_unref(reinterpret_cast<VipsArea*>(blob));
    return bytes;
  } catch (const vips::VError&) {
    vips_error_clear();
    throw WriteError("the picture could not be packed: there may not be enough memory.");
  }
}

}  // namespace rim
