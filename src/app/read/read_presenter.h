// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/read/curve_shape.h"
#include "app/read/marker_presenter.h"
#include "app/session/project_session.h"
#include "core/method/break_look.h"

#include <QObject>
#include <QPointF>

#include <map>
#include <memory>
#include <string>
#include <utility>
#include <vector>

namespace inchpeg::app
{

/// A curve to draw.
struct CurveModel {
    PieceId piece;
    int railIndex = 0;
    bool leftOut = false;
    bool isSelected = false;
    bool isPoints = false; ///< read by hand: a dot a reading
    std::shared_ptr<const CurveShape> shape;
};

/// A line beside the selected piece's record: a fit, where something was decided.
struct GuideModel {
    QString name;
    std::vector<QPointF> line;
    bool isGuide = false; ///< says where something was decided; else it is drawn like a curve
};

/// A marked point of the selected piece, and what it means.
struct MarkerModel {
    std::string marker; ///< empty for one that follows from others and cannot be moved
    QString name;
    QString meaning;
    QPointF at;
    Qt::Alignment side; ///< where the point lies, seen from its name
    bool isByHand = false;
};

/// One line of the piece's card.
struct PropertyLine {
    QString label;
    QString value;     ///< with unit, or a dash
    QString automatic; ///< the value as found, where markers were placed by hand and it differs
    QString rule;      ///< how it is defined
};

struct PieceCard {
    QString title;
    QString origin; ///< file, when it came, SHA-256
    QString section;
    std::vector<PropertyLine> properties;
    QStringList attention; ///< failed checks, warnings, or why it cannot be read
    bool canLeaveOut = false;
    bool isLeftOut = false;
    QString exclusionText;
    bool hasRecord = false;
    std::span<const BreakLook> looks; ///< that its break may have; empty where none is asked for
    std::string look;                 ///< name of the one that was said
};

/// Curves of one look of a break, to be shown alone.
struct LookChoice {
    QString look; ///< name; empty: all of them
    QString text; ///< "torn through: 12"
};

/// The read lens without widgets.
class ReadPresenter : public QObject
{
    Q_OBJECT
public:
    explicit ReadPresenter(ProjectSession &session, QObject *parent = nullptr);

    [[nodiscard]] MarkerPresenter &placing() { return m_placing; }
    [[nodiscard]] std::vector<CurveModel> curves();
    /// The curves as tab-separated text, a row a sample, in the units of the plot.
    [[nodiscard]] QString curvesText();
    [[nodiscard]] std::vector<MarkerModel> markers() const; ///< of the selected piece
    [[nodiscard]] std::vector<GuideModel> guides() const;   ///< of the selected piece
    [[nodiscard]] PieceCard card() const;
    [[nodiscard]] QString xTitle() const;
    [[nodiscard]] QString yTitle() const;
    [[nodiscard]] QString hintText() const;  ///< what mouse and keys do on the picture of the shown test
    [[nodiscard]] QString emptyText() const; ///< why there is nothing to see, or empty

    /// All, each look that was said with its count, and those of which nothing was said; empty where no break
    /// of the shown test was described.
    [[nodiscard]] std::vector<LookChoice> lookChoices() const;
    /// Shows the curves of one look alone, whatever rails are shown.
    void showLook(const QString &look);
    [[nodiscard]] QString shownLook() const; ///< empty: all

    bool sayBreak(const QString &look);
    bool leaveOut(const QString &reason);
    bool takeBackIn();
    /// Unlinks the record from its piece; the raw bytes stay in the project.
    bool takeOffRecord();

signals:
    /// The selected piece's record has come, or a marker was moved.
    void detailChanged();
    /// The curves of another look are shown.
    void lookChanged();

private:
    struct KeptShape {
        std::shared_ptr<const void> source; ///< the reading or record that it was made of
        std::shared_ptr<const CurveShape> shape;
    };
    [[nodiscard]] std::shared_ptr<const CurveShape> shapeOf(const Piece &piece, const ShownAxes &axes);

    ProjectSession &m_session;
    RecordLoader m_loader;
    MarkerPresenter m_placing;
    QString m_shownLook;
    std::map<PieceId, KeptShape> m_shapes;
    std::pair<Unit, Unit> m_shapeUnits; ///< that the shapes are in
};

} // namespace inchpeg::app
