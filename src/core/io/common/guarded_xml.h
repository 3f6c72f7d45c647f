#pragma once

#include <libxml/tree.h>

#include <memory>
#include <string_view>

namespace rim::io {

/// A text (UTF-8) as libxml2 takes it.
inline const xmlChar* xml(const char* text) { return reinterpret_cast<const xmlChar*>(text); }

struct FreeXml {
  void operator()(xmlDoc* doc) const { xmlFreeDoc(doc); }
};
using XmlDocument = std::unique_ptr<xmlDoc, FreeXml>;

/// Reads an XML document of any size; its own entities are put in their places, whatever lies in other files is left
/// out. Throws InputError, beginning with the line where there is one: a document that is not well-formed, one whose
/// entities unfold to more than 64 MB, an element with more than 1000 attributes, elements nested more than 256 deep.
XmlDocument readXml(std::string_view bytes);

}  // namespace rim::io
