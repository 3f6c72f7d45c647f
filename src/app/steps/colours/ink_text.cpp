#include "app/steps/colours/ink_text.h"

#include <QCoreApplication>

#include "core/overloaded.h"

namespace rim::app {
namespace {

QString text(const char* source) { return QCoreApplication::translate("InkText", source); }

/// Hues by degrees of L*a*b*, where each begins (common practice, no source).
struct Hue {
  double from;
  const char* name;
};
constexpr Hue kHues[] = {{0, QT_TRANSLATE_NOOP("InkText", "pink")},     {18, QT_TRANSLATE_NOOP("InkText", "red")},
                         {50, QT_TRANSLATE_NOOP("InkText", "orange")},  {74, QT_TRANSLATE_NOOP("InkText", "yellow")},
                         {106, QT_TRANSLATE_NOOP("InkText", "green")},  {180, QT_TRANSLATE_NOOP("InkText", "teal")},
                         {218, QT_TRANSLATE_NOOP("InkText", "blue")},   {300, QT_TRANSLATE_NOOP("InkText", "violet")},
                         {330, QT_TRANSLATE_NOOP("InkText", "magenta")}};

QString colourName(colour::Rgb colour) {
  const colour::Lab lab = colour::labFrom(colour);
  const double chroma = std::hypot(lab.a, lab.b);
  if (chroma < 7) {
    if (lab.l > 94) return text(QT_TRANSLATE_NOOP("InkText", "white"));
    if (lab.l < 18) return text(QT_TRANSLATE_NOOP("InkText", "black"));
    return lab.l > 60 ? text(QT_TRANSLATE_NOOP("InkText", "light grey")) : text(QT_TRANSLATE_NOOP("InkText", "grey"));
  }
  double hue = std::atan2(lab.b, lab.a) * 180 / M_PI;
  if (hue < 0) hue += 360;
  const char* name = kHues[0].name;
  for (const Hue& h : kHues) {
    if (hue >= h.from) name = h.name;
  }
  const QString plain = text(name);
  if (lab.l > 80 && chroma < 30) return text(QT_TRANSLATE_NOOP("InkText", "pale %1")).arg(plain);
  if (lab.l > 68 && chroma < 50) return text(QT_TRANSLATE_NOOP("InkText", "light %1")).arg(plain);
  if (lab.l < 35) return text(QT_TRANSLATE_NOOP("InkText", "dark %1")).arg(plain);
  return plain;
}

QString nameOfInk(std::size_t ink, const std::vector<colour::Ink>& inks) {
  return ink < inks.size() ? inkName(inks[ink]) : text(QT_TRANSLATE_NOOP("InkText", "an ink that is gone"));
}

}  // namespace

QColor colourOf(colour::Rgb colour) { return {colour.r, colour.g, colour.b}; }

QString inkName(const colour::Ink& ink) {
  return ink.name.empty() ? colourName(ink.colour) : QString::fromStdString(ink.name);
}

QString roleName(colour::InkRole role) {
  switch (role) {
    case colour::InkRole::Keep:
      return text(QT_TRANSLATE_NOOP("InkText", "kept"));
    case colour::InkRole::Background:
      return text(QT_TRANSLATE_NOOP("InkText", "background"));
    case colour::InkRole::Dissolve:
      break;
  }
  return text(QT_TRANSLATE_NOOP("InkText", "dissolved"));
}

QString decisionName(const colour::InkDecision& decision, const std::vector<colour::Ink>& inks) {
  return std::visit(
      Overloaded{[&](const colour::MergeInks& d) {
                   return text(QT_TRANSLATE_NOOP("InkText", "Merge %1 into %2"))
                       .arg(nameOfInk(d.from, inks), nameOfInk(d.into, inks));
                 },
                 [](const colour::SweepInks& d) {
                   return d.connected ? text(QT_TRANSLATE_NOOP("InkText", "Sweep, where connected"))
                                      : text(QT_TRANSLATE_NOOP("InkText", "Sweep"));
                 },
                 [&](const colour::SplitInk& d) {
                   return text(QT_TRANSLATE_NOOP("InkText", "Split %1")).arg(nameOfInk(d.ink, inks));
                 },
                 [&](const colour::SetInkRole& d) {
                   return text(QT_TRANSLATE_NOOP("InkText", "%1: %2")).arg(nameOfInk(d.ink, inks), roleName(d.role));
                 },
                 [&](const colour::RecolourInk& d) {
                   return text(QT_TRANSLATE_NOOP("InkText", "Recolour %1")).arg(nameOfInk(d.ink, inks));
                 },
                 [](const colour::RenameInk& d) {
                   return text(QT_TRANSLATE_NOOP("InkText", "Name: %1")).arg(QString::fromStdString(d.name));
                 }},
      decision);
}

}  // namespace rim::app
