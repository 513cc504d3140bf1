// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"

#include <QObject>
#include <QPointF>

#include <vector>

namespace inchpeg::app
{

/// A curve to draw.
struct CurveModel {
    PieceId piece;
    int railIndex = 0;
    bool leftOut = false;
    std::vector<double> x; ///< up to the break
    std::vector<double> y;
    std::vector<double> tailX; ///< the rest of the record, from the break on; of the selected piece only
    std::vector<double> tailY;
};

/// A marked point of the selected piece, and what it means.
struct MarkerModel {
    QString name;
    QString meaning;
    QPointF at;
    Qt::Alignment side; ///< where the point lies, seen from its name
};

/// One line of the piece's card.
struct PropertyLine {
    QString label;
    QString value; ///< with unit, or a dash
    QString rule;  ///< how it is defined
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
};

/// The read lens without widgets.
class ReadPresenter : public QObject
{
    Q_OBJECT
public:
    explicit ReadPresenter(ProjectSession &session, QObject *parent = nullptr);

    [[nodiscard]] std::vector<CurveModel> curves() const;
    [[nodiscard]] std::vector<MarkerModel> markers() const; ///< of the selected piece
    [[nodiscard]] PieceCard card() const;
    [[nodiscard]] QString xTitle() const;
    [[nodiscard]] QString yTitle() const;
    [[nodiscard]] QString emptyText() const; ///< why there is nothing to see, or empty

    bool leaveOut(const QString &reason);
    bool takeBackIn();
    /// Unlinks the record from its piece; the raw bytes stay in the project.
    bool takeOffRecord();

private:
    /// Without a strain anywhere the curves are drawn over what the records have.
    enum class Axis { Strain, Extension, Time };
    [[nodiscard]] Axis axis() const;
    [[nodiscard]] CurveModel curveOf(const Piece &piece, const PieceReading &reading,
                                     std::vector<double> x) const;
    [[nodiscard]] std::vector<double> xOf(const PieceReading &reading, Axis axis) const;

    ProjectSession &m_session;
};

} // namespace inchpeg::app
