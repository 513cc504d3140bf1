// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/compare/response_painter.h"
#include "app/session/project_session.h"
#include "core/compare/responses.h"

#include <QAbstractScrollArea>

class QPainter;

namespace inchpeg::app
{

/// Rails by responses: in each cell the pegs of a rail on a small scale that all rails of a column share, the
/// mean, and the difference from the reference by shape and number. A cell that is opened becomes the large
/// scale of its response.
class ResponseTable : public QAbstractScrollArea
{
    Q_OBJECT
public:
    explicit ResponseTable(ProjectSession &session, QWidget *parent = nullptr);

    [[nodiscard]] const std::vector<ResponseColumn> &columns() const { return m_columns; }
    [[nodiscard]] const QString &headline() const { return m_headline; }
    /// Where a cell is drawn, in the viewport's coordinates.
    [[nodiscard]] QRectF cellRect(std::size_t rail, std::size_t column) const;
    /// Draws the whole table, what is scrolled away as well, for a file.
    void paintWhole(QPainter &painter);
    [[nodiscard]] QSize wholeSize() const;

signals:
    void refreshed();

protected:
    void paintEvent(QPaintEvent *event) override;
    void resizeEvent(QResizeEvent *event) override;
    void showEvent(QShowEvent *event) override;
    void mousePressEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    void focusInEvent(QFocusEvent *event) override;
    void focusOutEvent(QFocusEvent *event) override;
    bool viewportEvent(QEvent *event) override;

private:
    struct Cell {
        std::size_t rail = 0;
        std::size_t column = 0;
    };
    void rebuild();
    void layOut();
    void choose(Cell cell);
    void open();
    [[nodiscard]] std::optional<std::size_t> columnAt(double x) const;
    [[nodiscard]] std::optional<Cell> cellAt(QPointF point) const;
    [[nodiscard]] QString cellText(Cell cell) const;
    [[nodiscard]] QRectF placeOf(std::size_t rail, std::size_t column, QPointF scrolled) const;
    void paint(QPainter &painter, QPointF scrolled, QRectF area) const;

    ProjectSession &m_session;
    // What is drawn, all of one moment: the study may be another one already when something is painted.
    std::vector<ResponseColumn> m_columns;
    std::vector<ResponseRail> m_rails;
    std::vector<QString> m_testNames; ///< of each column
    QString m_headline;
    QString m_confidence;
    std::vector<AxisScale> m_scales; ///< of each column, in working units
    Cell m_chosen;
    double m_labelWidth = 160.0;
    double m_columnWidth = 150.0;
    double m_headHeight = 60.0;
    double m_rowHeight = 80.0;
};

} // namespace inchpeg::app
