#include "core/io/common/guarded_xml.h"

#include <libxml/SAX2.h>
#include <libxml/parser.h>
#include <libxml/parserInternals.h>

#include <map>
#include <string>

#include "core/error.h"

namespace rim::io {
namespace {

constexpr std::size_t kMostUnfolded = 64'000'000;
constexpr int kMostAttributes = 1000;
constexpr int kDeepest = 256;

std::string_view view(const xmlChar* text) {
  return text == nullptr ? std::string_view() : std::string_view(reinterpret_cast<const char*>(text));
}

/// Watches over one reading: the library tells it of every entity and element.
class Guard {
 public:
  explicit Guard(xmlParserCtxt* context) : context_(context) {
    context->_private = this;
    context->sax->getEntity = [](void* it, const xmlChar* name) { return of(it).entity(it, name); };
    context->sax->entityDecl = [](void* it, const xmlChar* name, int type, const xmlChar* publicId,
                                  const xmlChar* systemId,
                                  xmlChar* content) { declare(it, name, type, publicId, systemId, content); };
    context->sax->startElementNs = [](void* it, const xmlChar* name, const xmlChar* prefix, const xmlChar* uri,
                                      int namespaces, const xmlChar** named, int attributes, int defaulted,
                                      const xmlChar** values) {
      if (of(it).mayBegin(attributes))
        xmlSAX2StartElementNs(it, name, prefix, uri, namespaces, named, attributes, defaulted, values);
    };
  }

  const std::string& fault() const { return fault_; }

 private:
  static Guard& of(void* context) { return *static_cast<Guard*>(static_cast<xmlParserCtxt*>(context)->_private); }

  void fail(const std::string& what) {
    if (fault_.empty()) fault_ = std::to_string(xmlSAX2GetLineNumber(context_)) + ": " + what;
    xmlStopParser(context_);
  }

  /// What lies in other files counts as empty: nothing is fetched.
  static void declare(void* context, const xmlChar* name, int type, const xmlChar* publicId, const xmlChar* systemId,
                      xmlChar* content) {
    static std::string nothing;
    auto* empty = reinterpret_cast<xmlChar*>(nothing.data());
    if (type == XML_EXTERNAL_GENERAL_PARSED_ENTITY) {
      xmlSAX2EntityDecl(context, name, XML_INTERNAL_GENERAL_ENTITY, nullptr, nullptr, empty);
    } else if (type == XML_EXTERNAL_PARAMETER_ENTITY) {
      xmlSAX2EntityDecl(context, name, XML_INTERNAL_PARAMETER_ENTITY, nullptr, nullptr, empty);
    } else {
      xmlSAX2EntityDecl(context, name, type, publicId, systemId, content);
    }
  }

  xmlEntity* entity(void* context, const xmlChar* name) {
    xmlEntity* found = xmlSAX2GetEntity(context, name);
    if (found == nullptr || found->etype != XML_INTERNAL_GENERAL_ENTITY) return found;
    unfolded_ += sizeOf(context, *found);
    if (unfolded_ <= kMostUnfolded) return found;
    fail("the entities of this SVG unfold to more than 64 MB.");
    return nullptr;
  }

  /// The length of an entity with all that it refers to.
  std::size_t sizeOf(void* context, const xmlEntity& entity) {
    // One that is still being counted is referred to by itself; the library tells that.
    const auto [known, isNew] = sizes_.try_emplace(&entity, 0);
    if (!isNew) return known->second;
    const std::string_view content = view(entity.content);
    std::size_t size = content.size();
    for (std::size_t at = content.find('&'); at != std::string_view::npos; at = content.find('&', at + 1)) {
      const std::size_t end = content.find(';', at);
      if (end == std::string_view::npos) break;
      const std::string name(content.substr(at + 1, end - at - 1));
      const xmlEntity* inner = xmlSAX2GetEntity(context, xml(name.c_str()));
      if (inner != nullptr) size += sizeOf(context, *inner);
      if (size > kMostUnfolded) break;
    }
    return sizes_[&entity] = size;
  }

  bool mayBegin(int attributes) {
    if (attributes > kMostAttributes) fail("an element with more than 1000 attributes.");
    if (context_->nameNr > kDeepest) fail("elements are nested more than 256 deep.");
    return fault_.empty();
  }

  xmlParserCtxt* context_;
  std::size_t unfolded_ = 0;
  std::map<const xmlEntity*, std::size_t> sizes_;
  std::string fault_;
};

struct FreeContext {
  void operator()(xmlParserCtxt* context) const { xmlFreeParserCtxt(context); }
};

std::string firstLine(const char* text) {
  const std::string line = text == nullptr ? "it is damaged" : text;
  return line.substr(0, line.find('\n'));
}

}  // namespace

XmlDocument readXml(std::string_view bytes) {
  const std::unique_ptr<xmlParserCtxt, FreeContext> context(xmlNewParserCtxt());
  if (!context) throw std::bad_alloc();
  const Guard guard(context.get());
  XmlDocument document(xmlCtxtReadMemory(context.get(), bytes.data(), static_cast<int>(bytes.size()), nullptr, nullptr,
                                         XML_PARSE_NONET | XML_PARSE_NOERROR | XML_PARSE_NOWARNING | XML_PARSE_NOCDATA |
                                             XML_PARSE_NOENT | XML_PARSE_HUGE));
  if (!guard.fault().empty()) throw InputError(guard.fault());
  if (document) return document;
  const xmlError* error = xmlCtxtGetLastError(context.get());
  throw InputError((error != nullptr && error->line > 0 ? std::to_string(error->line) + ": " : "") +
                   "this SVG cannot be read: " + firstLine(error != nullptr ? error->message : nullptr) + ".");
}

}  // namespace rim::io
