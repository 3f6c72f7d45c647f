#include "core/io/common/zip.h"

#include <zip.h>

#include <memory>

#include "core/error.h"

namespace rim::io {
namespace {

struct Discard {
  void operator()(zip_t* zip) const { zip_discard(zip); }
};
using Zip = std::unique_ptr<zip_t, Discard>;

struct CloseFile {
  void operator()(zip_file_t* file) const { zip_fclose(file); }
};

std::string reasonOf(int code) {
  zip_error_t error;
  zip_error_init_with_code(&error, code);
  std::string text = zip_error_strerror(&error);
  zip_error_fini(&error);
  return text;
}

std::vector<std::byte> readPart(zip_t* zip, zip_uint64_t index, zip_uint64_t size, const std::string& name) {
  const std::unique_ptr<zip_file_t, CloseFile> file(zip_fopen_index(zip, index, 0));
  std::vector<std::byte> bytes(size);
  // One byte more is asked for than there should be: the directory may have lied.
  std::byte more{};
  const bool whole = file && zip_fread(file.get(), bytes.data(), size) == static_cast<zip_int64_t>(size) &&
                     zip_fread(file.get(), &more, 1) == 0;
  if (!whole) throw InputError("the part \"" + name + "\" of the file is damaged.");
  return bytes;
}

}  // namespace

ZipParts readZip(const std::filesystem::path& file, const std::vector<std::string>& names, std::size_t mostBytes) {
  int code = 0;
  const Zip zip(zip_open(file.c_str(), ZIP_RDONLY | ZIP_CHECKCONS, &code));
  if (!zip) throw InputError("the file is damaged or no job (" + reasonOf(code) + ").");
  ZipParts parts;
  for (const std::string& name : names) {
    zip_stat_t facts;
    zip_stat_init(&facts);
    if (zip_stat(zip.get(), name.c_str(), 0, &facts) != 0) continue;
    if ((facts.valid & ZIP_STAT_SIZE) == 0 || facts.size > mostBytes) {
      throw InputError("the part \"" + name + "\" would unpack to more than " + std::to_string(mostBytes / 1'000'000) +
                       " MB.");
    }
    parts[name] = readPart(zip.get(), facts.index, facts.size, name);
  }
  return parts;
}

void writeZip(const std::filesystem::path& file, const std::vector<ZipPart>& parts) {
  int code = 0;
  Zip zip(zip_open(file.c_str(), ZIP_CREATE | ZIP_TRUNCATE, &code));
  if (!zip) throw WriteError("the file cannot be written: " + reasonOf(code) + ".");
  for (const ZipPart& part : parts) {
    constexpr int kKeepOwnership = 0;
    zip_source_t* source = zip_source_buffer(zip.get(), part.bytes.data(), part.bytes.size(), kKeepOwnership);
    const zip_int64_t added =
        source == nullptr ? -1 : zip_file_add(zip.get(), part.name.c_str(), source, ZIP_FL_ENC_UTF_8);
    if (source != nullptr && added < 0) zip_source_free(source);
    // The same parts give the same bytes, whenever they are written: all are as old as zip's calendar.
    constexpr zip_uint16_t kMidnight = 0;
    constexpr zip_uint16_t kFirstDay = 1U << 5U | 1U;  // 1980-01-01
    // Packed quickly: saving again shall not be felt, and what is worth packing well is packed already.
    constexpr zip_uint32_t kQuickly = 1;
    const zip_int32_t method = part.packed ? ZIP_CM_STORE : ZIP_CM_DEFLATE;
    const bool told =
        added >= 0 && zip_file_set_dostime(zip.get(), static_cast<zip_uint64_t>(added), kMidnight, kFirstDay, 0) == 0 &&
        zip_set_file_compression(zip.get(), static_cast<zip_uint64_t>(added), method, part.packed ? 0 : kQuickly) == 0;
    if (!told) throw WriteError("the part \"" + part.name + "\" cannot be written.");
  }
  if (zip_close(zip.get()) != 0)
    throw WriteError("the file cannot be written: " + std::string(zip_strerror(zip.get())) + ".");
  zip.release();
}

}  // namespace rim::io
