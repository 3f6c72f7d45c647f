#pragma once

#include "app/steps/refine/hand/handwork.h"
#include "app/steps/refine/hand/node_tool.h"
#include "app/steps/refine/hand/select_tool.h"
#include "app/steps/refine/refine_panel.h"
#include "support/spoil.h"
#include "window_fixture.h"

namespace rim::test {

/// A window on a plate with a wobbly hole, a square that is not quite one, and a part beside it.
struct RefineFixture : WindowFixture {
  RefineFixture() { openDrawing(plate()); }
  explicit RefineFixture(const Drawing& drawing) { openDrawing(drawing); }

  static Drawing plate() {
    std::vector<Point> ring;
    for (int i = 0; i < 60; ++i) {
      const double a = 2 * M_PI * i / 60;
      ring.push_back(Point{30, 30} + Point{std::cos(a), std::sin(a)} * (10 + 0.05 * ((i * 7) % 3 - 1)));
    }
    return makeDrawing({polygonPath({{0, 0}, {60, 0.1}, {60, 60}, {0.1, 60}}), polygonPath(ring),
                        polygonPath({{80, 0}, {120, 0}, {120, 39}, {119, 40}, {80, 40}})});
  }

  void openDrawing(const Drawing& drawing) {
    const QString file = folder.filePath("plate.dxf");
    writeDrawing(drawing, file.toStdString(), {});
    window->openFile(file);
    [[maybe_unused]] const bool there =
        QTest::qWaitFor([this] { return job().drawing && session().upToDate(); }, 120'000);
    window->show();
    window->showStep(app::MainWindow::kRefine);
    window->bench().fit();
  }

  app::RefinePanel& panel() { return *window->findChild<app::RefinePanel*>(); }
  app::Handwork& hand() { return panel().handwork(); }
  bool offered() {
    return settle() && QTest::qWaitFor([this] { return panel().offers() != nullptr; }, 120'000);
  }
  QPoint onScreen(Point mm) { return window->bench().viewport().toScreen(mm * (1 / mmPerPixel(job()))).toPoint(); }
  void click(Point mm, Qt::KeyboardModifiers keys = {}) {
    QTest::mouseClick(&window->bench(), Qt::LeftButton, keys, onScreen(mm));
  }
  void drag(Point from, Point to) {
    QTest::mousePress(&window->bench(), Qt::LeftButton, {}, onScreen(from));
    QTest::mouseMove(&window->bench(), onScreen(lerp(from, to, 0.5)));
    QTest::mouseMove(&window->bench(), onScreen(to));
    QTest::mouseRelease(&window->bench(), Qt::LeftButton, {}, onScreen(to));
  }
  Drawing now() { return drawingOf(job()); }
};

}  // namespace rim::test
